// The lines of a list that were read of a slip: each confirmed as a whole, or opened and corrected cell by cell.
import { useState } from "react";
import type { Answers, Field, Paper, PaperKind, SlipBox, SlipRead } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox, isSame, shownEntry } from "../entry/EntryBox";
import { count } from "../ui/format";
import { Button } from "../ui/pieces";

/** A line: what stands in its cells, and whether somebody has looked at it. */
export type ReadLine = { cells: Answers; seen: boolean };

type Props = {
  kind: PaperKind;
  /** The paper that they go to, where it is there. */
  paper: Paper | undefined;
  read: SlipBox[][];
  lines: ReadLine[];
  setLines: React.Dispatch<React.SetStateAction<ReadLine[]>>;
  see: (read: SlipRead | undefined) => void;
};

/** The lines as they were read, none of them looked at. */
export function asRead(rows: SlipBox[][]): ReadLine[] {
  const cells = (row: SlipBox[]) =>
    Object.fromEntries(row.flatMap(({ field, entry }) => (entry == null ? [] : [[field, entry]])));
  return rows.map((row) => ({ cells: cells(row), seen: false }));
}

/** Whether the paper has such a line already. */
export function isThere(kind: PaperKind, paper: Paper | undefined, { cells }: ReadLine): boolean {
  const says = (row: Answers) =>
    kind.columns.every((column) => {
      const read = cells[column.id];
      return read === undefined || isSame(column, read, row[column.id] ?? null);
    });
  return (paper?.rows ?? []).some((row) => says(row as Answers));
}

export function SlipLines({ kind, paper, read, lines, setLines, see }: Props) {
  const set = (n: number, change: Partial<ReadLine>) =>
    setLines((now) => now.map((line, at) => (at === n ? { ...line, ...change } : line)));
  const fresh = lines.filter((line) => !isThere(kind, paper, line));
  const confirmAll = () =>
    setLines((now) => now.map((line) => ({ ...line, seen: !isThere(kind, paper, line) })));
  return (
    <fieldset>
      <div className="mt-3 flex items-baseline gap-3 border-b border-ink pb-1">
        <h3 className="flex-1">Its lines, as they were read</h3>
        {fresh.length > 0 && (
          <Button tone="quiet" onClick={confirmAll}>
            Confirm {fresh.length === 1 ? "it" : `all ${count(fresh.length, "line")}`}
          </Button>
        )}
      </div>
      {lines.map((line, n) => (
        <Line
          key={n}
          number={n + 1}
          kind={kind}
          read={read[n] ?? []}
          line={line}
          there={isThere(kind, paper, line)}
          set={(change) => set(n, change)}
          see={see}
        />
      ))}
    </fieldset>
  );
}

type LineProps = {
  number: number;
  kind: PaperKind;
  read: SlipBox[];
  line: ReadLine;
  there: boolean;
  set: (change: Partial<ReadLine>) => void;
  see: (read: SlipRead | undefined) => void;
};

/** Enter confirms a line and goes on to the next. */
function confirmAndGoOn(event: React.KeyboardEvent<HTMLInputElement>, confirm: () => void) {
  if (event.key !== "Enter") return;
  event.preventDefault();
  confirm();
  const all = [
    ...(event.currentTarget.closest("fieldset")?.querySelectorAll<HTMLElement>("[data-line]") ?? []),
  ];
  all[all.indexOf(event.currentTarget) + 1]?.focus();
}

function Line({ number, kind, read, line, there, set, see }: LineProps) {
  const { opened } = useDesk();
  const [open, setOpen] = useState(false);
  const { people } = opened.household;
  const columns = kind.columns.filter((column) => read.some((cell) => cell.field === column.id));
  const faults = read.filter((cell) => cell.fault && line.cells[cell.field] === undefined);
  const told = (column: Field) => {
    const value = line.cells[column.id];
    return value === undefined ? "–" : shownEntry(column, people, value);
  };
  const readOf = (field: string) => read.find((cell) => cell.field === field)?.read;
  const change = (field: string, value: Answers[string] | null) => {
    const { [field]: _, ...rest } = line.cells;
    set({ cells: value === null ? rest : { ...rest, [field]: value }, seen: true });
  };
  return (
    <div className={`row-line py-1 ${line.seen ? "bg-wash" : ""}`} onFocusCapture={() => see(read[0]?.read)}>
      <div className="grid grid-cols-[30px_1fr_auto_20px] items-center gap-1">
        <b className="text-soft">{number}</b>
        <span className="leading-tight">
          {columns.map(told).join(" · ")}
          {there && <span className="block text-[12px] text-soft">The paper has such a line already.</span>}
          {faults.map((cell) => (
            <span key={cell.field} className="block text-[12px] text-ochre">
              It says “{cell.read.words}”: {cell.fault}.
            </span>
          ))}
        </span>
        <Button
          tone="quiet"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          aria-label={`Correct line ${number}`}
        >
          {open ? "Close" : "Correct"}
        </Button>
        <input
          type="checkbox"
          data-line
          aria-label={`Line ${number} is confirmed`}
          checked={line.seen}
          onChange={(event) => set({ seen: event.target.checked })}
          onKeyDown={(event) => confirmAndGoOn(event, () => set({ seen: true }))}
        />
      </div>
      {open && (
        <div className="grid grid-cols-[1fr_10rem] items-center gap-x-2 gap-y-1 py-1 pl-[34px]">
          {kind.columns.map((column) => (
            <div key={column.id} className="contents" onFocusCapture={() => see(readOf(column.id))}>
              <span className="text-soft">{`${column.number} ${column.label}`.trim()}</span>
              <EntryBox
                field={column}
                label={`Line ${number}, ${column.label}`}
                value={line.cells[column.id]}
                people={people}
                keep={async (value) => {
                  change(column.id, value);
                  return null;
                }}
              />
            </div>
          ))}
        </div>
      )}
    </div>
  );
}
