// Rule figures: every figure of the law that a country's rules use, its years side by side, with its source.
import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useDeferredValue, useMemo, useRef, useState } from "react";
import { api, ask } from "../api/client";
import type { FigureTable, RuleFigures } from "../api/types";
import { usePacks } from "../households/Households";
import { count } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Blank, Button, Key, Waiting } from "../ui/pieces";
import { figure, moved, wanted } from "./figures";

export function FiguresView() {
  const packs = usePacks();
  const { law = packs.data?.[0]?.id, table } = useSearch({ from: "/figures" });
  const navigate = useNavigate();
  const [sought, setSought] = useState("");
  const [changed, setChanged] = useState(false);
  const box = useRef<HTMLInputElement>(null);
  useKeys({ "/": () => box.current?.focus() });
  const found = useQuery({
    queryKey: ["figures", law],
    queryFn: () => ask(api.GET("/api/packs/{id}/figures", { params: { path: { id: law ?? "" } } })),
    enabled: law !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const text = useDeferredValue(sought);
  const tables = useMemo(() => wanted(found.data?.tables ?? [], text, changed), [found.data, text, changed]);
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
              }}
            >
              Show all figures
            </Button>
          </Blank>
        )}
        {found.data && tables.length > 0 && <Tables all={found.data} tables={tables} at={table} />}
      </main>
    </div>
  );
}

function told(tables: FigureTable[]) {
  const rows = tables.reduce((sum, table) => sum + table.rows.length, 0);
  return `${count(rows, "figure")} in ${count(tables.length, "table")} ·`;
}

function Tables({ all, tables, at }: { all: RuleFigures; tables: FigureTable[]; at: string | undefined }) {
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
          <Table key={table.id} table={table} years={all.years} open={table.id === at} />
        ))}
      </section>
    </div>
  );
}

function Table({ table, years, open }: { table: FigureTable; years: number[]; open: boolean }) {
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
                {year}
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
                  {figure(row.values[i])}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const STATUS = { enacted: "in force", announced: "announced", to_be_confirmed: "to be confirmed" };
