// A list of receipts: a line a receipt, the last one empty for the next.
import { Fragment, type ReactNode, useId, useState } from "react";
import type { CellMade, Entry, Field, Paper, PaperKind, PaperRow, Point } from "../api/types";
import { type How, useDesk } from "../desk/useDesk";
import { EntryBox, FaultPlace } from "../entry/EntryBox";
import { count, decimal, exact, isZero } from "../ui/format";
import { Button } from "../ui/pieces";
import { PointNote } from "./PaperForm";
import { PayerOptions } from "./PayerOptions";
import { hasProofs, isProven } from "./Proof";
import { useOffered } from "./payers";
import { TableIn } from "./TableIn";

type Props = {
  paper: Paper;
  kind: PaperKind;
  points: Point[];
  at: { field: string | undefined; row: string | undefined };
  /** A cell of codes that is looked at. */
  look: (cell: CellMade | undefined) => void;
};

/** As wide as what stands in it needs. */
const WIDTHS: Partial<Record<Field["kind"]["type"], string>> = {
  date: "min-w-32 w-32",
  amount: "min-w-28 w-28 text-right",
  count: "min-w-18 w-18 text-right",
  number: "min-w-20 w-20 text-right",
  person: "min-w-36 w-36",
  choice: "min-w-36 w-36",
  yes_no: "min-w-24 w-24",
  text: "min-w-36 w-72",
};

/** Whether a column holds a code or two. */
function isCode(kind: Field["kind"]) {
  return kind.type === "text" && kind.max <= 8;
}

const CODE = "px-0.5 [&_input]:px-0 [&_input]:text-center [&_input]:text-[11px]";

/** How a cell stands in which the rules have found something. */
const TONES: Record<CellMade["tone"], string> = { good: "bg-wash", spared: "", costs: "bg-sand" };

/** Shift with an arrow writes what stands in a cell of codes into the next one, and goes there. */
function fillNext(event: React.KeyboardEvent<HTMLElement>) {
  if (!event.shiftKey || event.key !== "ArrowRight") return;
  const box = event.target as HTMLInputElement;
  const next = event.currentTarget.nextElementSibling?.querySelector<HTMLInputElement>("input[data-box]");
  if (!next || box.value === "") return;
  event.preventDefault();
  next.focus();
  next.select();
  document.execCommand("insertText", false, box.value);
}

function width({ kind }: Field) {
  if (kind.type === "choice" && kind.options.some(({ label }) => label.length > 18)) return "min-w-36 w-64";
  if (kind.type === "count" && kind.max <= 12) return "min-w-14 w-14 text-right";
  if (isCode(kind)) return "min-w-9 w-10 text-center";
  if (kind.type === "text" && kind.max <= 20) return "min-w-32 w-36";
  if (kind.type === "text" && kind.max <= 40) return "min-w-32 w-44";
  return WIDTHS[kind.type] ?? "";
}

/** What a line is stays in sight while the columns of a wide list pass below it. */
const FIRST = "desk:first:sticky desk:first:left-0 desk:first:z-1 desk:first:bg-sheet";

/** An id that no other window gives out. */
function freshRow() {
  return `r-${crypto.randomUUID().slice(0, 8)}`;
}

/** A line, and below it what is wrong with it. */
type LineProps = { number: number; columns: number; typing: () => void; children: ReactNode };

function WithFaults({ number, columns, typing, children }: LineProps) {
  const [place, setPlace] = useState<HTMLElement | null>(null);
  return (
    <>
      <tr className="row-line align-top" onInput={typing}>
        <FaultPlace value={place}>{children}</FaultPlace>
      </tr>
      <tr className="[&:not(:has([role=alert]))]:hidden">
        <td colSpan={columns}>
          <span className="text-soft">Line {number}</span>
          <span ref={setPlace} />
        </td>
      </tr>
    </>
  );
}

/** Last year's sums of a list that has none of its own. */
function sumsBefore(paper: Paper, kind: PaperKind, year: number) {
  const sums = kind.columns.flatMap(({ id, label }) => {
    const sum = paper.before?.[id];
    return sum ? [`${label} ${exact(String(sum))}`] : [];
  });
  return sums.length > 0 && `For ${year} together: ${sums.join(", ")}.`;
}

export function Receipts({ paper, kind, points, at, look }: Props) {
  const { opened, edit, past } = useDesk();
  const rows = paper.rows ?? [];
  const { amount = "0", back = "0", drawn } = opened.outcome.papers.find((p) => p.paper === paper.id) ?? {};
  const worked = (after: string) => drawn?.columns.filter((column) => column.after === after) ?? [];
  const made = (row: string | undefined, column: string) =>
    drawn?.cells.find((cell) => cell.row === row && cell.column === column);
  const toneOf = (row: string | undefined, column: string) => {
    const cell = made(row, column);
    return cell ? TONES[cell.tone] : "";
  };
  const proofs = hasProofs(paper, kind, opened.outcome);
  // The sum stands below the column that it adds up; what is worked out of all lines stands beside the list.
  const summed = drawn?.stands ? -1 : kind.columns.findIndex((c) => c.id === kind.headline);
  const before = paper.before?.[kind.headline];
  const paid = String(Number(amount) + Number(back));
  // Lines that are not stored yet have their ids already, so that the boxes stay the same when they are; as soon as somebody
  // types in the empty one, the next one follows.
  const [fresh, setFresh] = useState(() => [freshRow()]);
  const unstored = fresh.filter((id) => !rows.some((row) => row.id === id));
  if (unstored.length === 0) setFresh([freshRow()]);
  const lines: PaperRow[] = [...rows, ...unstored.map((id) => ({ id }))];
  const typing = (line: PaperRow) => {
    if (line.id === unstored.at(-1)) setFresh([...unstored, freshRow()]);
  };
  // Whether a line is there is known only when its turn comes: its first cell may still be on its way.
  const keep = (row: string, field: string) => (value: Entry | null, how: How) =>
    edit((now) => {
      const there = now.household.papers?.find((p) => p.id === paper.id)?.rows ?? [];
      if (there.some((r) => r.id === row)) return [{ do: "set_cell", paper: paper.id, row, field, value }];
      return value === null ? [] : [{ do: "add_row", paper: paper.id, id: row, row: { [field]: value } }];
    }, how);
  const { known, setTyped } = useOffered();
  const lists = useId();
  const told = `${count(rows.length, "line")}. The last, empty one is for the next.`;
  return (
    <>
      {kind.columns.some((column) => column.payer) && (
        <>
          <PayerOptions id={`${lists}-name`} known={known} by="name" />
          <PayerOptions id={`${lists}-number`} known={known} by="number" />
        </>
      )}
      <div className="relative overflow-x-auto desk:scroll-pl-56">
        <table className="border-collapse">
          <thead>
            <tr className="border-b border-ink text-left">
              {kind.columns.map((c) => (
                <Fragment key={c.id}>
                  <th scope="col" className={`py-1 pr-1.5 ${FIRST} ${width(c)}`} title={c.help || undefined}>
                    {c.label}
                  </th>
                  {worked(c.id).map(({ label }) => (
                    <th
                      key={label}
                      scope="col"
                      className="min-w-14 py-1 pr-2 text-right font-normal text-soft"
                    >
                      {label}
                    </th>
                  ))}
                </Fragment>
              ))}
              <th scope="col" className="sticky right-0 bg-sheet py-1 text-right font-normal text-soft">
                {proofs && (
                  <span title="What proves the line is at hand" className="pr-[30px]">
                    ✓
                  </span>
                )}
                <span className="sr-only">Proof, and remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line, r) => (
              <WithFaults
                key={line.id}
                number={r + 1}
                columns={kind.columns.length + (drawn?.columns.length ?? 0) + 1}
                typing={() => typing(line)}
              >
                {kind.columns.map((column) => (
                  <Fragment key={column.id}>
                    <td
                      className={`py-0.5 ${isCode(column.kind) ? `${CODE} ${toneOf(line.id, column.id)}` : "pr-1.5"} ${FIRST}`}
                      onKeyDown={isCode(column.kind) ? fillNext : undefined}
                      onFocus={() => look(made(line.id, column.id))}
                    >
                      <EntryBox
                        field={column}
                        label={`${column.label}, line ${r + 1}`}
                        value={line[column.id]}
                        offered={made(line.id, column.id)?.reads || undefined}
                        people={opened.household.people}
                        focus={at.row === line.id && at.field === column.id}
                        keep={keep(line.id ?? "", column.id)}
                        secretAt={{ paper: paper.id, row: line.id, field: column.id }}
                        list={column.payer ? `${lists}-${column.payer}` : undefined}
                        typing={column.payer ? setTyped : undefined}
                      />
                    </td>
                    {worked(column.id).map(({ label, cells }) => (
                      <td key={label} className="py-2 pr-2 text-right align-middle">
                        {cells[line.id ?? ""] && decimal(cells[line.id ?? ""] ?? "")}
                      </td>
                    ))}
                  </Fragment>
                ))}
                <td className="sticky right-0 bg-sheet text-right whitespace-nowrap">
                  {r < rows.length && proofs && (
                    <input
                      type="checkbox"
                      className="size-[24px] scale-60 align-middle"
                      aria-label={`What proves line ${r + 1} is at hand`}
                      checked={isProven(paper, line.id ?? "")}
                      disabled={past}
                      onChange={({ target }) => {
                        const row = line.id ?? "";
                        void edit([{ do: "set_row_proof", paper: paper.id, row, proof: target.checked }]);
                      }}
                    />
                  )}
                  {r < rows.length && (
                    <Button
                      tone="quiet"
                      className="min-h-[24px] min-w-[24px]"
                      aria-label={`Remove line ${r + 1}`}
                      onClick={() => edit([{ do: "remove_row", paper: paper.id, row: line.id ?? "" }])}
                    >
                      ×
                    </Button>
                  )}
                </td>
              </WithFaults>
            ))}
          </tbody>
          {summed >= 0 && (
            <tfoot>
              <tr>
                <td colSpan={Math.max(1, summed)} className="pt-1.5">
                  <span className="flex flex-wrap justify-between gap-x-4 pr-2">
                    <span className="text-soft">
                      {told}
                      {before && ` For ${opened.household.year - 1} together ${exact(String(before))}.`}
                    </span>
                    {!isZero(back) && `${exact(paid)} paid − ${exact(back)} paid back =`}
                  </span>
                </td>
                <td className="pt-1.5 pr-4 text-right font-bold">{exact(amount)}</td>
                <td colSpan={kind.columns.length - summed} />
              </tr>
            </tfoot>
          )}
        </table>
        {summed < 0 && (
          <p className="pt-1.5 text-soft">
            {told} {sumsBefore(paper, kind, opened.household.year - 1)}
          </p>
        )}
      </div>
      <TableLinks paper={paper} kind={kind} />
      <div className="mt-3 grid grid-cols-2">
        {points.map((point) => (
          <PointNote key={point.id} point={point} />
        ))}
      </div>
    </>
  );
}

/** A table in, and the list out as one. */
function TableLinks({ paper, kind }: { paper: Paper; kind: PaperKind }) {
  const { opened, past } = useDesk();
  const [taking, setTaking] = useState(false);
  return (
    <p className="mt-3 -ml-1 flex gap-4">
      {!past && (
        <Button tone="quiet" onClick={() => setTaking(true)}>
          Lines from a table…
        </Button>
      )}
      {(paper.rows ?? []).length > 0 && (
        <a
          className="text-petrol underline decoration-1 underline-offset-2 hover:text-ink"
          href={`/api/households/${opened.id}/papers/${paper.id}/table`}
        >
          The list as CSV
        </a>
      )}
      {taking && <TableIn paper={paper} kind={kind} close={() => setTaking(false)} />}
    </p>
  );
}
