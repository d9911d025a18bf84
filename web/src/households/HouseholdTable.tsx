import { Link } from "@tanstack/react-router";
import { Suspense, useState } from "react";
import type { HouseholdRow, PackInfo } from "../api/types";
import { later } from "../later";
import { focusAtOnce } from "../ui/focus";
import { balance, lately, units, yearOf } from "../ui/format";
import { Diamond, Meter } from "../ui/pieces";
import { stageName } from "../ui/stages";
import { type Actions, lawOf, type Order } from "./Households";

const RowMenu = later(() => import("./RowMenu"), "RowMenu");

/** `wide`: shown where there is room. */
type Column = { id: string; label: string; right?: boolean; wide?: boolean };

const WIDE = "max-desk:hidden";

/** The server sorts by these. */
const COLUMNS: Column[] = [
  { id: "name", label: "Household" },
  { id: "law", wide: true, label: "Law" },
  { id: "year", wide: true, label: "Year" },
  { id: "stage", wide: true, label: "State" },
  { id: "who", wide: true, label: "In hand" },
  { id: "checked", wide: true, label: "Checked" },
  { id: "points", label: "Open", right: true },
  { id: "total", label: "Lowest tax", right: true },
  { id: "ways", wide: true, label: "Ways", right: true },
  { id: "saved", wide: true, label: "Saved", right: true },
  { id: "balance", wide: true, label: "Balance", right: true },
  { id: "touched", wide: true, label: "Touched" },
];

type Props = {
  /** The ids of those that are chosen. */
  chosen: Set<string>;
  choose: (chosen: Set<string>) => void;
  rows: HouseholdRow[];
  packs: PackInfo[];
  act: Actions;
  order: Order;
  setOrder: (order: Order) => void;
};

export function HouseholdTable({ rows, packs, act, order, setOrder, chosen, choose }: Props) {
  const all = rows.every((row) => chosen.has(row.id));
  const toggle = (id: string, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(id);
    else next.delete(id);
    choose(next);
  };
  return (
    <table className="mt-6 w-full border-collapse">
      <thead>
        <tr className="border-b border-ink">
          <th scope="col" className={`w-8 px-2 text-left ${WIDE}`}>
            <input
              type="checkbox"
              aria-label="Choose all that are shown"
              checked={all}
              onChange={(e) => choose(new Set(e.target.checked ? rows.map((row) => row.id) : []))}
            />
          </th>
          {COLUMNS.map((c) => {
            const here = order.id === c.id;
            return (
              <th
                key={c.id}
                scope="col"
                aria-sort={here ? (order.down ? "descending" : "ascending") : undefined}
                className={`px-1.5 py-1.5 whitespace-nowrap ${c.right ? "text-right" : "text-left"} ${c.wide ? WIDE : ""}`}
              >
                <button
                  type="button"
                  className="font-semibold"
                  onClick={() => setOrder({ id: c.id, down: here ? !order.down : c.right === true })}
                >
                  {c.label}
                  <span aria-hidden="true">{here ? (order.down ? " ↓" : " ↑") : ""}</span>
                </button>
              </th>
            );
          })}
          <th scope="col" className={WIDE}>
            <span className="sr-only">More: carry forward, rename, copy, put away or delete</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <HouseholdLine
            key={row.id}
            row={row}
            packs={packs}
            act={act}
            chosen={chosen.has(row.id)}
            choose={(on) => toggle(row.id, on)}
          />
        ))}
      </tbody>
    </table>
  );
}

type LineProps = {
  row: HouseholdRow;
  packs: PackInfo[];
  act: Actions;
  chosen: boolean;
  choose: (on: boolean) => void;
};

function HouseholdLine({ row, packs, act, chosen, choose }: LineProps) {
  const [renaming, setRenaming] = useState(false);
  const { summary } = row;
  const rename = (name: string | null) => {
    setRenaming(false);
    if (name) act.rename(row, name);
  };
  const symbol = packs.find((p) => p.id === row.country)?.symbol ?? "";
  const right = "px-1.5 text-right whitespace-nowrap";
  const known = (text: string) =>
    summary.covered && summary.blocking === 0 ? text : <span className="text-soft">{text} so far</span>;
  const told = (text: string) => (summary.covered ? text : "");
  return (
    <tr className="row-line h-[34px] bg-sheet hover:bg-wash">
      <td className={`px-1.5 ${WIDE}`}>
        <input
          type="checkbox"
          aria-label={`Choose ${row.name} ${row.year}`}
          checked={chosen}
          onChange={(e) => choose(e.target.checked)}
        />
      </td>
      <th scope="row" className="max-w-56 truncate px-1.5 text-left font-normal max-desk:max-w-44">
        {renaming ? (
          <RenameBox name={row.name} done={rename} />
        ) : (
          <Link
            to="/h/$id/spread"
            params={{ id: row.id }}
            search={{}}
            className="font-semibold hover:underline"
          >
            {row.name}{" "}
            <span className="text-[12px] font-normal text-soft">
              {row.reference && `${row.reference} · `}
              {summary.people.map((p) => p.split(" ")[0]).join(", ")}
              {row.origin === "imported" && " · imported"}
              {row.origin === "carried" && ` · from ${row.year - 1}`}
            </span>
          </Link>
        )}
      </th>
      <td className={`px-1.5 whitespace-nowrap ${WIDE}`}>{lawOf(row, packs)}</td>
      <td className={`px-1.5 whitespace-nowrap ${WIDE}`}>
        {yearOf(row.year, packs.find((p) => p.id === row.country)?.planning)}
      </td>
      <td className={`px-1.5 whitespace-nowrap ${WIDE}`}>{stageName(row.stage)}</td>
      <td className={`max-w-32 truncate px-1.5 ${WIDE}`}>
        <Hands row={row} />
      </td>
      <td className={`px-1.5 ${WIDE}`}>
        <span className="flex items-center gap-2 whitespace-nowrap">
          <span className="w-8">
            <Meter
              part={summary.checked}
              whole={summary.papers}
              label={`${summary.checked} of ${summary.papers} papers checked`}
            />
          </span>
          {summary.checked} of {summary.papers}
        </span>
      </td>
      <td className={right}>
        <OpenPoints blocking={summary.blocking} looking={summary.looking} />
      </td>
      <td className={`${right} font-semibold`}>
        {summary.covered ? (
          known(`${symbol} ${units(summary.total)}`)
        ) : (
          <span className="text-soft">no result</span>
        )}
      </td>
      <td className={`${right} ${WIDE}`}>{summary.ways}</td>
      <td className={`${right} ${WIDE}`}>{told(`${symbol} ${units(summary.saved)}`)}</td>
      <td className={`${right} ${WIDE}`}>{told(`${symbol} ${balance(summary.balance)}`)}</td>
      <td className={`px-1.5 whitespace-nowrap ${WIDE}`}>{lately(row.touched_at)}</td>
      <td className={`${right} ${WIDE}`}>
        <Suspense>
          <RowMenu row={row} packs={packs} act={act} rename={() => setRenaming(true)} />
        </Suspense>
      </td>
    </tr>
  );
}

/** Who has it in hand: who reviews it while it is there to be reviewed, else who works on it. */
function Hands({ row }: { row: HouseholdRow }) {
  const reviewing = row.reviewer && (row.stage === "ready" || row.stage === "in_review");
  return reviewing ? <span>→ {row.reviewer}</span> : row.worked_by;
}

/** Whether a law has the figures of a year. */
export function hasYear(packs: PackInfo[], country: string, year: number) {
  return packs.some((pack) => pack.id === country && pack.years.includes(year));
}

function RenameBox({ name, done }: { name: string; done: (name: string | null) => void }) {
  return (
    <input
      ref={focusAtOnce}
      className="box"
      aria-label="New name"
      defaultValue={name}
      onFocus={(e) => e.target.select()}
      onBlur={(e) => done(e.target.value.trim() === name ? null : e.target.value.trim())}
      onKeyDown={(e) => {
        if (e.key === "Enter") e.currentTarget.blur();
        if (e.key === "Escape") done(null);
      }}
    />
  );
}

export function OpenPoints({ blocking, looking }: { blocking: number; looking: number }) {
  if (blocking + looking === 0) return <span>none</span>;
  return (
    <span className="inline-flex items-center gap-1">
      {blocking > 0 && (
        <>
          <Diamond solid />
          <span className="sr-only">blocking:</span>
          {blocking}
        </>
      )}
      {looking > 0 && (
        <>
          <Diamond solid={false} />
          <span className="sr-only">worth a look:</span>
          {looking}
        </>
      )}
    </span>
  );
}
