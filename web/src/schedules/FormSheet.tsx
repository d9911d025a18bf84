// One official form in our own layout: printed number, short title, amount.
import type { KeyboardEvent } from "react";
import { useRef } from "react";
import type { FormRow } from "../api/types";
import { useDesk } from "../desk/useDesk";
import type { Standing } from "../router";
import { exact, isZero, touched, units } from "../ui/format";
import { Notch } from "../ui/pieces";
import type { Filed } from "./SchedulesView";
import { isToTick, type Ticked } from "./useTicks";

type Props = {
  filed: Filed;
  marked: Standing;
  /** Marks a line; none on paper. */
  mark?: (row: FormRow) => void;
  /** Opens the form that an amount comes from. */
  from?: (form: string) => void;
  /** Lines found right, and ticking one off; none on paper. */
  ticked?: Ticked;
  /** A second column: what it is, and the amount of the same line there. */
  beside?: { title: string; of: (row: FormRow) => string | undefined };
  /** Which lines are shown. */
  only?: (row: FormRow) => boolean;
};

export function FormSheet({ filed: { of, form }, marked, mark, from, ticked, beside, only }: Props) {
  const { opened } = useDesk();
  const table = useRef<HTMLTableElement>(null);
  const rows = only ? form.rows.filter(only) : form.rows;
  const walk = (event: KeyboardEvent) => {
    const at = event.target as HTMLElement;
    const shown = rows.find((row) => keyOf(row) === at.dataset.row);
    if (event.key === " " && shown && ticked) {
      event.preventDefault();
      if (isToTick(shown)) ticked.set([shown], !ticked.of(shown));
      return;
    }
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    const buttons = [...(table.current?.querySelectorAll<HTMLButtonElement>("button[data-row]") ?? [])];
    const next = buttons[buttons.indexOf(event.target as HTMLButtonElement) + (by ?? 0)];
    if (!by || !next) return;
    event.preventDefault();
    next.focus();
  };
  const isMarked = (row: FormRow) => row.line === marked.line && row.scope === marked.scopes;
  // With cents on any line all are written with them, so that the units stand below each other.
  const write = form.rows.some((row) => Number(row.amount ?? 0) % 1 !== 0) ? exact : units;
  const stop = rows.find(isMarked) ?? rows[0];
  return (
    <article className="max-w-[760px] break-inside-avoid px-6 pt-4 pb-3">
      <h2 className="text-[15px]">
        {form.name} · {form.title}
      </h2>
      <p className="pb-2 text-soft">{of.whose}</p>
      {form.rows.length === 0 && <p className="text-soft">No computed amount stands on it.</p>}
      {form.rows.length > 0 && rows.length === 0 && <p className="text-soft">No line of it is shown.</p>}
      <table ref={table} className="w-full border-collapse" onKeyDown={walk}>
        <thead>
          <tr className="border-b border-ink text-[12px] text-soft">
            <th scope="col" className="w-16 pb-0.5 text-left font-normal">
              Line
            </th>
            <th scope="col" className="pb-0.5 text-left font-normal">
              What it is
            </th>
            <th scope="col" className="w-32 pb-0.5 text-right font-normal">
              {opened.household.year}
            </th>
            {beside && (
              <th scope="col" className="w-28 pb-0.5 text-right font-normal">
                {beside.title}
              </th>
            )}
            {ticked && (
              <th scope="col" className="w-24 pb-0.5 text-right font-normal">
                Found right
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={keyOf(row)}
              className={`h-[25px] ${row.result ? "border-b border-ink font-bold" : "row-line"} ${isMarked(row) ? "bg-wash" : ""}`}
            >
              <td className="text-soft">{row.number}</td>
              <th scope="row" className={`text-left ${row.result ? "" : "font-normal"}`}>
                {row.title}
                {row.from && <From id={row.from} of={of} open={from} />}
              </th>
              <td className="p-0 text-right">
                <Amount
                  row={row}
                  write={write}
                  tabIndex={row === stop ? 0 : -1}
                  mark={mark && row.amount ? () => mark(row) : undefined}
                />
              </td>
              {beside && (
                <td className="text-right font-normal text-soft">{written(beside.of(row), write)}</td>
              )}
              {ticked && (
                <td className="text-right font-normal">
                  <TickBox row={row} ticked={ticked} />
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </article>
  );
}

const keyOf = (row: FormRow) => `${row.number} ${row.line} ${row.scope}`;

function written(amount: string | undefined, write: (amount: string) => string) {
  return amount === undefined ? "" : isZero(amount) ? "·" : write(amount);
}

/** Whether a line was found right, by whom; one whose amount changed since says what it was. */
function TickBox({ row, ticked }: { row: FormRow; ticked: Ticked }) {
  if (!isToTick(row)) return null;
  const tick = ticked.of(row);
  const stale = ticked.stale(row);
  const told = tick
    ? `${tick.by}, ${touched(tick.at)}`
    : stale
      ? `was ${units(stale.amount)} when ${stale.by} ticked it`
      : undefined;
  return (
    <span className="inline-flex items-center gap-1.5" title={told}>
      {stale && <span className="text-[12px] text-ochre">was {units(stale.amount)}</span>}
      <input
        type="checkbox"
        tabIndex={-1}
        checked={tick !== undefined}
        aria-label={`${row.title} found right${told ? `: ${told}` : ""}`}
        onChange={() => ticked.set([row], !tick)}
      />
    </span>
  );
}

type AmountProps = {
  row: FormRow;
  /** How amounts are written on this form. */
  write: (amount: string) => string;
  tabIndex: number;
  mark?: () => void;
};

function Amount({ row, write, tabIndex, mark }: AmountProps) {
  const empty = !row.amount || (isZero(row.amount) && !row.result);
  const text = empty ? "·" : write(row.amount ?? "0");
  if (!mark) return <span>{text}</span>;
  return (
    <button
      type="button"
      data-row={keyOf(row)}
      tabIndex={tabIndex}
      onClick={mark}
      className="h-[25px] w-full text-right hover:underline"
      aria-label={`${row.title}: ${text}`}
    >
      {!isZero(row.lost) && <Notch lost={units(row.lost)} />} {text}
    </button>
  );
}

/** The other form that an amount comes from unchanged. */
function From({ id, of, open }: { id: string; of: Filed["of"]; open?: (form: string) => void }) {
  const name = of.forms.find((f) => f.id === id)?.name;
  if (!open) return <span className="ml-2 text-[12px] font-normal text-soft">{name}</span>;
  return (
    <button
      type="button"
      className="ml-2 text-[12px] font-normal text-petrol underline underline-offset-2"
      onClick={() => open(id)}
    >
      {name}
    </button>
  );
}
