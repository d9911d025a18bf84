// All households of a year by the law of another: what each would come to, one after the other.
import { useInfiniteQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import { api, ask } from "../api/client";
import type { ByLaw, PackInfo, PlannedRow } from "../api/types";
import { balance, count, difference, units, writeNumbers, yearOf } from "../ui/format";
import { Blank, Button, Waiting } from "../ui/pieces";
import { Select } from "./Filters";
import { usePacks } from "./Households";

type Asked = { law: string; year: number; by: number };

export function Planning() {
  const packs = usePacks();
  const pack = useChosen(packs.data);
  return (
    <div className="flex min-h-screen flex-col">
      <header className="flex h-13 shrink-0 items-center gap-4 bg-plum px-4 text-white">
        <Link to="/" className="text-[19px] font-extrabold text-white" style={{ fontStretch: "125%" }}>
          Hembo
        </Link>
        <h1 className="text-[15px]">Planning</h1>
        <Link to="/" className="ml-auto whitespace-nowrap text-white">
          Households
        </Link>
      </header>
      <main className="px-7 pt-4 pb-8 max-desk:px-3">
        <p className="text-soft">
          Every household of a year, its papers as they are, by the law of another year. Nothing is changed.
        </p>
        {packs.isPending && <Waiting what="Fetching the laws…" />}
        {packs.data && pack && <Chosen packs={packs.data} {...pack} />}
      </main>
    </div>
  );
}

/** The law and the years of the address, or the first law with two years: from the latest that is none of planning to the one after. */
function useChosen(packs: PackInfo[] | undefined): { pack: PackInfo; asked: Asked } | undefined {
  const { law, year, by } = useSearch({ from: "/planning" });
  const pack = packs?.find((one) => one.id === law) ?? packs?.[0];
  if (!pack) return undefined;
  const own = year ?? pack.years.find((one) => !pack.planning.includes(one)) ?? pack.years[0] ?? 0;
  const other =
    by ?? pack.years.find((one) => one === own + 1) ?? pack.years.find((one) => one !== own) ?? own;
  return { pack, asked: { law: pack.id, year: own, by: other } };
}

function Chosen({ packs, pack, asked }: { packs: PackInfo[]; pack: PackInfo; asked: Asked }) {
  const navigate = useNavigate();
  const show = (to: Partial<Asked>) => void navigate({ to: "/planning", search: { ...asked, ...to } });
  const [going, setGoing] = useState(false);
  const years = pack.years.map((year) => ({ value: String(year), label: yearOf(year, pack.planning) }));
  writeNumbers(pack.numbers);
  const found = useInfiniteQuery({
    queryKey: ["planning", asked],
    queryFn: ({ pageParam }) => {
      const query = { country: asked.law, year: asked.year, by: asked.by, from: pageParam };
      return ask(api.GET("/api/planning", { params: { query } }));
    },
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const told = pages.reduce((sum, page) => sum + page.rows.length, 0);
      return told < last.count && last.rows.length > 0 ? told : undefined;
    },
    enabled: going && asked.year !== asked.by,
    staleTime: 0,
    refetchOnWindowFocus: false,
  });
  const { hasNextPage, isFetching, isError, fetchNextPage } = found;
  useEffect(() => {
    if (going && hasNextPage && !isFetching && !isError) void fetchNextPage();
  }, [going, hasNextPage, isFetching, isError, fetchNextPage]);
  const rows = found.data?.pages.flatMap((page) => page.rows) ?? [];
  const all = found.data?.pages[0]?.count;
  const done = found.isSuccess && !hasNextPage;
  return (
    <>
      <div className="mt-3 mb-4 flex flex-wrap items-center gap-2">
        <Select
          label="Law"
          options={packs.map((one) => ({ value: one.id, label: one.name }))}
          value={asked.law}
          choose={(law) => {
            setGoing(false);
            void navigate({ to: "/planning", search: { law } });
          }}
        />
        <span>households of</span>
        <Select
          label="Year"
          options={years}
          value={String(asked.year)}
          choose={(year) => show({ year: Number(year) })}
        />
        <span>by the law of</span>
        <Select
          label="By the law of"
          options={years}
          value={String(asked.by)}
          choose={(by) => show({ by: Number(by) })}
        />
        {going && !done && !isError ? (
          <Button onClick={() => setGoing(false)}>Stop</Button>
        ) : (
          <Button
            tone="main"
            disabled={asked.year === asked.by || (done && going)}
            onClick={() => {
              setGoing(true);
              if (isError) void found.refetch();
            }}
          >
            {rows.length > 0 && !done ? "Go on" : "Reckon them"}
          </Button>
        )}
        <span role="status" className="text-soft">
          {told(rows.length, all, asked)}
        </span>
      </div>
      {isError && (
        <p role="alert" className="mb-3 border-l-4 border-ochre bg-sand px-3 py-2">
          {found.error.message}
        </p>
      )}
      {all === 0 && (
        <Blank title={`No household of ${asked.year}`}>
          <p>{pack.name} has none in use for that year.</p>
        </Blank>
      )}
      {rows.length > 0 && <Rows rows={rows} asked={asked} />}
    </>
  );
}

function told(done: number, all: number | undefined, { year, by }: Asked) {
  if (year === by) return "Choose two years.";
  return all ? `${done} of ${count(all, "household")} reckoned` : "";
}

function Rows({ rows, asked: { year, by } }: { rows: PlannedRow[]; asked: Asked }) {
  const [byMore, setByMore] = useState(false);
  const size = (row: PlannedRow) => Math.abs(Number(row.more ?? 0));
  const shown = byMore ? rows.toSorted((one, other) => size(other) - size(one)) : rows;
  const dearer = rows.filter((row) => Number(row.more ?? 0) > 0).length;
  const cheaper = rows.filter((row) => Number(row.more ?? 0) < 0).length;
  return (
    <>
      <p className="mb-1 flex flex-wrap items-center gap-x-4">
        <span>
          More tax by {by} for <b>{count(dearer, "household")}</b>, less for <b>{cheaper}</b>.
        </span>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={byMore} onChange={(event) => setByMore(event.target.checked)} />
          The largest differences first
        </label>
        <a
          className="text-petrol underline underline-offset-2"
          download={`planning-${year}-${by}.csv`}
          href={`data:text/csv;charset=utf-8,${encodeURIComponent(csv(rows, year, by))}`}
        >
          As CSV
        </a>
      </p>
      <table className="w-full bg-sheet">
        <thead>
          <tr className="border-b border-ink text-left text-soft">
            <th className="py-1 pl-2 font-normal">Household</th>
            <th className="pl-6 text-right font-normal">Total tax {year}</th>
            <th className="pl-6 text-right font-normal">by {by}</th>
            <th className="pl-6 text-right font-normal">more</th>
            <th className="pl-6 text-right font-normal">Balance by {by}</th>
            <th className="w-[45%] pl-8 font-normal">Way by {by}</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((row) => (
            <tr key={row.household} className="row-line h-[27px]">
              <td className="pl-2">
                <Link
                  to="/h/$id/spread"
                  params={{ id: row.household }}
                  search={{}}
                  className="text-petrol underline underline-offset-2"
                >
                  {row.name}
                </Link>
                {row.reference && <span className="ml-2 text-soft">{row.reference}</span>}
              </td>
              <td className="text-right">{tax(row.own)}</td>
              <td className="text-right">{tax(row.other)}</td>
              <td className="text-right font-bold">{row.more ? difference(row.more) : ""}</td>
              <td className="text-right">{row.other?.covered ? balance(row.other.balance) : ""}</td>
              <td className="pl-8">
                {row.fault ? <span className="text-ochre">{row.fault}</span> : way(row)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function tax(law: ByLaw | null | undefined) {
  if (!law) return "";
  return law.covered ? units(law.total) : "no result";
}

/** The way by the other law, and the one of the household's own where it is another. */
function way({ own, other }: PlannedRow) {
  if (!own || !other || own.way === other.way) return other?.way ?? "";
  return `${other.way}, not ${own.way}`;
}

/** Words in quotes, so that no table takes one for a formula. */
function csv(rows: PlannedRow[], year: number, by: number) {
  const cell = (words: string) => `"${words.replaceAll('"', '""').replace(/^[=+\-@]/, "'$&")}"`;
  const amount = (law: ByLaw | null | undefined) => (law?.covered ? law.total : "");
  const lines = rows.map((row) => {
    const words = [cell(row.name), cell(row.reference)];
    return [
      ...words,
      amount(row.own),
      amount(row.other),
      row.more ?? "",
      cell(way(row)),
      cell(row.fault),
    ].join(",");
  });
  const head = `household,reference,total_tax_${year},by_${by},more,way,fault`;
  return [head, ...lines, ""].join("\r\n");
}
