// Rule figures: every figure of the law that a country's rules use, its years side by side, with its source.
import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useDeferredValue, useMemo, useRef, useState } from "react";
import { api, ask } from "../api/client";
import type { FigureTable, RuleFigures } from "../api/types";
import { usePacks } from "../households/Households";
import { useWho } from "../signin/SignInGate";
import { count, yearOf } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Blank, Button, Key, Waiting } from "../ui/pieces";
import { figure, isAt, moved, wanted } from "./figures";
import { Replacing, type Figure as Shown } from "./Replacing";

export function FiguresView() {
  const packs = usePacks();
  const { law = packs.data?.[0]?.id, table, own: asked = false } = useSearch({ from: "/figures" });
  const navigate = useNavigate();
  const [sought, setSought] = useState("");
  const [changed, setChanged] = useState(false);
  const [own, setOwn] = useState(asked);
  const box = useRef<HTMLInputElement>(null);
  useKeys({ "/": () => box.current?.focus() });
  const found = useQuery({
    queryKey: ["figures", law],
    queryFn: () => ask(api.GET("/api/packs/{id}/figures", { params: { path: { id: law ?? "" } } })),
    enabled: law !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const text = useDeferredValue(sought);
  const tables = useMemo(
    () => (found.data ? shown(found.data, text, changed, own) : []),
    [found.data, text, changed, own],
  );
  const choose = (id: string) => navigate({ to: "/figures", search: { law: id } });
  return (
    <div className="flex h-screen flex-col">
      <header className="flex h-13 shrink-0 items-center gap-4 bg-plum px-4 text-white">
        <Link to="/" className="text-[19px] font-extrabold text-white" style={{ fontStretch: "125%" }}>
          Hembo
        </Link>
        <h1 className="text-[15px]">Rule figures</h1>
        <input
          ref={box}
          value={sought}
          onChange={(e) => setSought(e.target.value)}
          placeholder="Find a figure, a rule or a source"
          aria-label="Find a figure, a rule or a source"
          className="ml-auto h-8 w-85 min-w-0 bg-white/15 px-3 text-white placeholder:text-white/85"
        />
        <Link to="/" className="whitespace-nowrap text-white">
          Households
        </Link>
      </header>
      <main className="flex min-h-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule px-4 py-2">
          {packs.data?.map((pack) => (
            <Button
              key={pack.id}
              tone={pack.id === law ? "main" : "plain"}
              aria-pressed={pack.id === law}
              onClick={() => void choose(pack.id)}
            >
              {pack.name}
            </Button>
          ))}
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={changed} onChange={(e) => setChanged(e.target.checked)} />
            Only what differs between the years
          </label>
          {(own || found.data?.replaced.some((one) => !one.ended_at)) && (
            <label className="flex items-center gap-2">
              <input type="checkbox" checked={own} onChange={(e) => setOwn(e.target.checked)} />
              Only the practice's own
            </label>
          )}
          <span className="text-soft">
            {found.data && told(tables)} <Key>/</Key> find
          </span>
        </div>
        {found.isPending && <Waiting what="Fetching the rule figures…" />}
        {found.isError && <Blank title="The rule figures cannot be fetched">{found.error.message}</Blank>}
        {found.data && tables.length === 0 && (
          <Blank title="No figure matches">
            <Button
              onClick={() => {
                setSought("");
                setChanged(false);
                setOwn(false);
              }}
            >
              Show all figures
            </Button>
          </Blank>
        )}
        {found.data && tables.length > 0 && law && (
          <Tables law={law} all={found.data} tables={tables} at={table} />
        )}
      </main>
    </div>
  );
}

function shown(all: RuleFigures, sought: string, changed: boolean, own: boolean) {
  const at = all.replaced.filter((one) => !one.ended_at);
  return wanted(all.tables, sought, (table, row) => {
    const differs = !changed || row.values.some((_, year) => moved(row, year));
    return differs && (!own || at.some((one) => one.table === table.id && one.figure === row.id));
  });
}

function told(tables: FigureTable[]) {
  const rows = tables.reduce((sum, table) => sum + table.rows.length, 0);
  return `${count(rows, "figure")} in ${count(tables.length, "table")} ·`;
}

type TablesProps = { law: string; all: RuleFigures; tables: FigureTable[]; at: string | undefined };

function Tables({ law, all, tables, at }: TablesProps) {
  const may = useWho().data?.role === "administrator";
  const [place, setPlace] = useState<Shown>();
  const here = place && all.replaced.filter((one) => isAt(one, place));
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[230px_1fr] max-desk:block max-desk:overflow-auto">
      <nav
        aria-label="Tables"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink py-2 max-desk:hidden"
      >
        {tables.map((table) => (
          <a
            key={table.id}
            href={`#${table.id}`}
            className="block h-[26px] truncate px-4 leading-[26px] hover:bg-wash"
          >
            {table.name}
          </a>
        ))}
      </nav>
      <section aria-label="Figures" tabIndex={0} className="min-h-0 overflow-auto bg-sheet px-6 pb-10">
        {tables.map((table) => (
          <Table
            key={table.id}
            table={table}
            all={all}
            open={table.id === at}
            look={(place) =>
              may || all.replaced.some((one) => isAt(one, place)) ? () => setPlace(place) : undefined
            }
          />
        ))}
      </section>
      {place && here && (
        <Replacing law={law} place={place} record={here} may={may} onClose={() => setPlace(undefined)} />
      )}
    </div>
  );
}

type TableProps = {
  table: FigureTable;
  all: RuleFigures;
  open: boolean;
  /** Opens the record of a figure, where there is one or may be one. */
  look: (place: Shown) => (() => void) | undefined;
};

function Table({ table, all, open, look }: TableProps) {
  const { years } = all;
  const sources = years.map((year, i) => ({ year, source: table.years[i] }));
  const same = new Set(sources.map(({ source }) => `${source?.cite} ${source?.status}`)).size === 1;
  const shown = same ? sources.slice(0, 1) : sources;
  return (
    <section id={table.id} ref={open ? (it) => it?.scrollIntoView() : undefined} className="pt-5">
      <table className="w-full max-w-5xl">
        <caption className="pb-1 text-left">
          <b className="text-[15px] font-semibold first-letter:uppercase">{table.name}</b>
          {shown.map(({ year, source }) => (
            <span key={year} className="block text-[12px] text-soft">
              {!same && `${year}: `}
              {source ? source.cite : "not in this year"}
              {source && source.status !== "enacted" && (
                <b className="ml-2 font-semibold text-ochre">{STATUS[source.status]}</b>
              )}
            </span>
          ))}
          <span className="block text-[12px] text-soft">Used for {table.used_for.join(", ")}</span>
        </caption>
        <thead>
          <tr className="border-b border-ink text-left">
            <th className="py-0.5 font-semibold">Figure</th>
            {years.map((year) => (
              <th key={year} className="w-44 py-0.5 text-right font-semibold">
                {yearOf(year, all.planning)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row) => (
            <tr key={row.name} className="row-line align-top">
              <th scope="row" className="py-0.5 pr-4 text-left font-normal first-letter:uppercase">
                {row.name || table.name}
              </th>
              {years.map((year, i) => (
                <td
                  key={year}
                  className={`py-0.5 pl-4 text-right tabular-nums ${moved(row, i) ? "font-semibold text-petrol" : ""}`}
                >
                  <Figure
                    value={row.values[i]}
                    own={all.replaced.some(
                      (one) => !one.ended_at && isAt(one, { year, table: table.id, figure: row.id }),
                    )}
                    look={(value) =>
                      look({
                        year,
                        table: table.id,
                        figure: row.id,
                        value,
                        name: named(table.name, row.name),
                      })
                    }
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** "Standard deduction: basic, single". */
function named(table: string, row: string) {
  return row ? `${table}: ${row}` : table;
}

type FigureProps = {
  value: string | null | undefined;
  own: boolean;
  look: (value: string) => (() => void) | undefined;
};

function Figure({ value, own, look }: FigureProps) {
  if (value === null || value === undefined) return figure(value);
  const open = look(value);
  if (!open) return figure(value);
  return (
    <>
      <button
        type="button"
        onClick={open}
        className="cursor-pointer tabular-nums hover:underline focus-visible:underline"
      >
        {figure(value)}
      </button>
      {own && <span className="block text-[12px] font-normal text-ochre">the practice's own</span>}
    </>
  );
}

const STATUS = { enacted: "in force", announced: "announced", to_be_confirmed: "to be confirmed" };
