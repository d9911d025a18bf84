// One official form in our own layout: printed number, short title, amount.
import type { KeyboardEvent } from "react";
import { useRef } from "react";
import type { FormRow } from "../api/types";
import { useDesk } from "../desk/useDesk";
import type { Standing } from "../router";
import { exact, isZero, units } from "../ui/format";
import { Notch } from "../ui/pieces";
import type { Filed } from "./SchedulesView";

type Props = {
  filed: Filed;
  marked: Standing;
  /** Marks a line; none on paper. */
  mark?: (row: FormRow) => void;
  /** Opens the form that an amount comes from. */
  from?: (form: string) => void;
};

export function FormSheet({ filed: { of, form }, marked, mark, from }: Props) {
  const { opened } = useDesk();
  const table = useRef<HTMLTableElement>(null);
  const walk = (event: KeyboardEvent) => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    const rows = [...(table.current?.querySelectorAll<HTMLButtonElement>("button[data-row]") ?? [])];
    const next = rows[rows.indexOf(event.target as HTMLButtonElement) + (by ?? 0)];
    if (!by || !next) return;
    event.preventDefault();
    next.focus();
  };
  const isMarked = (row: FormRow) => row.line === marked.line && row.scope === marked.scopes;
  // With cents on any line all are written with them, so that the units stand below each other.
  const write = form.rows.some((row) => Number(row.amount ?? 0) % 1 !== 0) ? exact : units;
  const stop = form.rows.find(isMarked) ?? form.rows[0];
  return (
    <article className="max-w-[720px] break-inside-avoid px-6 pt-4 pb-3">
      <h2 className="text-[15px]">
        {form.name} · {form.title}
      </h2>
      <p className="pb-2 text-soft">{of.whose}</p>
      {form.rows.length === 0 && <p className="text-soft">No computed amount stands on it.</p>}
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
          </tr>
        </thead>
        <tbody>
          {form.rows.map((row) => (
            <tr
              key={`${row.number} ${row.line} ${row.scope}`}
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
            </tr>
          ))}
        </tbody>
      </table>
    </article>
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
      data-row
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
