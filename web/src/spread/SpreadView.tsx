// The Spread: people are columns, lines are rows, the last column is the household together.
import { useNavigate, useSearch } from "@tanstack/react-router";
import { type KeyboardEvent, useRef, useState } from "react";
import type { Cell, Outcome, Row, Section } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { personFar } from "../points/far";
import type { Standing } from "../router";
import { Trail } from "../trail/Trail";
import { BesideTable } from "../trials/BesideTable";
import { TrialSide } from "../trials/TrialSide";
import { balance, difference, isZero, units } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Mark } from "../ui/Mark";
import { Notch } from "../ui/pieces";
import { AddPerson } from "./AddPerson";
import { CellPanel } from "./CellPanel";
import { HouseholdPanel } from "./HouseholdPanel";
import { useFirstBox } from "./lines";
import { PersonPanel } from "./PersonPanel";
import { WaysStrip } from "./WaysStrip";
import { Welcome } from "./Welcome";

export function SpreadView() {
  const standing = useSearch({ from: "/h/$id" });
  const navigate = useNavigate();
  const { opened } = useDesk();
  const stand = (search: Standing) =>
    void navigate({ to: "/h/$id/spread", params: { id: opened.id }, search, replace: true });
  useKeys({
    t: () => standing.line && stand({ ...standing, trail: !standing.trail || undefined }),
    Escape: () => stand({ line: standing.line, scopes: standing.scopes }),
    ArrowDown: markFirst,
    ArrowUp: markFirst,
    ArrowLeft: markFirst,
    ArrowRight: markFirst,
  });
  const marked = standing.line || standing.person || standing.household;
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_auto]">
      <div
        className={`grid min-h-0 max-desk:block ${standing.trail ? "grid-cols-[1fr_470px]" : "grid-cols-[1fr_352px]"}`}
      >
        <section aria-label="Spread" className="h-full min-h-0 overflow-auto border-r border-ink">
          {opened.trial ? (
            <BesideTable standing={standing} stand={stand} />
          ) : (
            <SpreadTable outcome={opened.outcome} standing={standing} stand={stand} />
          )}
        </section>
        <aside
          aria-label="About the marked place"
          tabIndex={0}
          className={`min-h-0 overflow-auto ${marked ? "max-desk:fixed max-desk:inset-x-0 max-desk:bottom-0 max-desk:z-20 max-desk:max-h-[70dvh] max-desk:border-t-4 max-desk:border-plum max-desk:bg-paper" : "max-desk:hidden"}`}
        >
          <button
            type="button"
            className="sticky top-1 float-right mr-2 px-2 py-1 text-petrol underline desk:hidden"
            onClick={() => stand({})}
          >
            Close
          </button>
          <Panel standing={standing} stand={stand} />
        </aside>
      </div>
      <WaysStrip />
    </div>
  );
}

type Stand = (search: Standing) => void;

/** The first arrow on a sheet where nothing has the focus marks the cell at which Tab would stop. */
function markFirst() {
  if (document.activeElement?.closest("main")) return;
  const cell = document.querySelector<HTMLElement>("[data-cell][tabindex='0']");
  if (cell) mark(cell);
}

function Panel({ standing, stand }: { standing: Standing; stand: Stand }) {
  const { opened } = useDesk();
  const person = opened.household.people.find((p) => p.id === standing.person);
  if (person) return <PersonPanel key={person.id} person={person} at={standing.field} />;
  if (standing.household) return <HouseholdPanel at={standing.field} />;
  if (!standing.line) return opened.trial ? <TrialSide /> : <Welcome />;
  if (standing.trail) return <Trail line={standing.line} scopes={standing.scopes ?? ""} stand={stand} />;
  return <CellPanel line={standing.line} scopes={standing.scopes ?? ""} stand={stand} />;
}

function keyOf(cell: Cell) {
  return `${cell.line}@${cell.scopes.join(",")}`;
}

/** The one cell where Tab stops: the marked one, or the first. Arrows walk the others. */
function tabStop(outcome: Outcome, standing: Standing) {
  const rows = outcome.spread.flatMap((s) => s.rows);
  const cells = rows.flatMap((row) => [...row.cells, row.together]).filter((c) => !!c);
  const stop = cells.find((c) => isAt(c, standing)) ?? cells[0];
  return stop ? keyOf(stop) : "";
}

/** Whether a cell has the mark: its line, and whose. */
function isAt(cell: Cell, standing: Standing) {
  return cell.line === standing.line && cell.scopes.join(",") === standing.scopes;
}

function SpreadTable({ outcome, standing, stand }: { outcome: Outcome; standing: Standing; stand: Stand }) {
  const table = useRef<HTMLTableElement>(null);
  const { opened } = useDesk();
  const navigate = useNavigate();
  const firstBox = useFirstBox();
  const edit = async (line: string, scopes: string) => {
    const box = await firstBox({ line, scopes });
    if (!box) return;
    const search = { paper: box.paper, field: box.field, row: box.row ?? undefined };
    await navigate({ to: "/h/$id/papers", params: { id: opened.id }, search });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const at = (event.target as HTMLElement).dataset.cell?.split("@");
    if (event.key === "Enter" && at) {
      event.preventDefault();
      void edit(at[0] ?? "", at[1] ?? "");
    }
    const move = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (!move || !table.current) return;
    event.preventDefault();
    walk(table.current, move[0] ?? 0, move[1] ?? 0);
  };
  const stop = tabStop(outcome, standing);
  const rows = outcome.spread.flatMap((s) => s.rows);
  const shared = rows.some((row) => row.shared);
  const ends = rows.filter((row) => row.end).map((row) => row.label);
  const head = "px-3 pt-2 pb-1.5 text-right align-bottom";
  return (
    <table ref={table} className="w-full border-collapse" onKeyDown={onKeyDown}>
      <thead className="sticky top-0 z-10 bg-paper">
        <tr className="border-b border-ink">
          <th scope="col" className="px-3.5 text-left align-bottom font-normal">
            <AddPerson />
          </th>
          {outcome.columns.map((column) => (
            <th key={column.person} scope="col" className={`${head} min-w-24`}>
              <button
                type="button"
                className="text-right hover:underline"
                onClick={() => stand({ person: column.person })}
              >
                <span className="block font-bold">
                  <HowFar person={column.person} /> {column.name.split(" ")[0]}
                </span>
                <span className="block text-[12px] font-normal text-soft">
                  {column.caption}
                  {column.files && column.files !== "joint" ? ` · ${column.files}` : ""}
                </span>
              </button>
            </th>
          ))}
          {shared && (
            <th
              scope="col"
              className={`${head} text-[12px] font-normal text-soft`}
              title="Nobody's part: what a limit took from all together, what both paid, rounding"
            >
              shared
            </th>
          )}
          <th
            scope="col"
            className={`${head} min-w-32 border-l border-ink max-desk:sticky max-desk:right-0 max-desk:min-w-24 max-desk:bg-paper`}
          >
            <button
              type="button"
              className="text-right hover:underline"
              onClick={() => stand({ household: true })}
            >
              <span className="block font-bold">Together</span>
              <span className="ml-auto block max-w-60 text-[12px] font-normal text-soft">
                {outcome.together}
              </span>
            </button>
          </th>
        </tr>
      </thead>
      {outcome.spread.map((section) => (
        <OneSection key={section.title} section={section} columns={outcome.columns.length + (shared ? 2 : 1)}>
          {(rows) =>
            rows.map((row) => (
              <SpreadRow
                key={row.label}
                row={row}
                standing={standing}
                stand={stand}
                stop={stop}
                shared={shared}
                fromEnd={ends.length - 1 - ends.indexOf(row.label)}
              />
            ))
          }
        </OneSection>
      ))}
    </table>
  );
}

type SectionProps = { section: Section; columns: number; children: (rows: Row[]) => React.ReactNode };

/** A section with its heading; a long one shows its result until it is opened, one with a result alone has no heading. */
function OneSection({ section, columns, children }: SectionProps) {
  const [open, setOpen] = useState(!section.folds);
  const results = section.rows.filter((row) => row.result);
  const folded = section.folds && results.length > 0;
  const bare = results.length === section.rows.length;
  return (
    <tbody className="bg-sheet">
      {!bare && (
        <tr className="row-line">
          <th
            scope="colgroup"
            colSpan={columns}
            className="px-3.5 pt-1 pb-0.5 text-left text-[13.5px] font-bold text-plum"
          >
            {folded ? (
              <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
                {section.title}{" "}
                <span className="text-[12px] font-normal underline">
                  {open ? "fold" : `open ${section.rows.length - results.length} rows`}
                </span>
              </button>
            ) : (
              section.title
            )}
          </th>
          <td className="border-l border-ink bg-[#faf8fb]" />
        </tr>
      )}
      {children(open || !folded ? section.rows : results)}
    </tbody>
  );
}

type RowProps = {
  row: Row;
  standing: Standing;
  stand: Stand;
  stop: string;
  /** Whether there is a column for what is nobody's part. */
  shared: boolean;
  /** How many rows of the end of the computation follow. */
  fromEnd: number;
};

function SpreadRow({ row, standing, stand, stop, shared, fromEnd }: RowProps) {
  const tone = row.counts ? "" : "italic text-soft";
  const ruled = row.end ? "font-bold" : row.result ? "border-b border-ink font-bold" : "row-line";
  // The end of the computation stays in view.
  const end = row.end ? { position: "sticky" as const, bottom: fromEnd * 25, zIndex: 5 } : undefined;
  const cell = (cell: Cell | null | undefined) =>
    cell ? <CellButton cell={cell} row={row} standing={standing} stand={stand} stop={stop} /> : <Nothing />;
  return (
    <tr className={`h-[25px] ${ruled} ${tone} ${row.end ? "end-row bg-sheet" : ""}`} style={end}>
      <th
        scope="row"
        className={`px-3.5 text-left max-desk:sticky max-desk:left-0 max-desk:z-1 max-desk:max-w-36 max-desk:bg-sheet max-desk:px-2 ${row.result || row.end ? "font-bold" : "font-normal"}`}
      >
        {row.label}
        {row.papers > 0 && !row.result && !row.end && (
          <span className="ml-2 text-[12px] text-soft not-italic">{row.papers}</span>
        )}
        {!row.counts && <span className="ml-2 text-[12px]">not taken</span>}
      </th>
      {row.cells.map((c, i) => (
        <td key={i} className="p-0 text-right">
          {cell(c)}
        </td>
      ))}
      {shared && (
        <td data-shared className="px-3 text-right text-[12px] font-normal text-soft">
          {row.shared ? sharedPart(row) : ""}
        </td>
      )}
      <td className="border-l border-ink bg-[#faf8fb] p-0 text-right font-semibold max-desk:sticky max-desk:right-0 max-desk:z-1">
        {cell(row.together)}
      </td>
    </tr>
  );
}

/** What of the row is nobody's part; what a limit took comes back. */
function sharedPart(row: Row) {
  const amount = Number(row.shared ?? 0) * (row.takes_off ? -1 : 1);
  return difference(String(amount));
}

function Nothing() {
  return (
    <span className="px-3 text-soft" aria-hidden="true">
      ·
    </span>
  );
}

type CellProps = { cell: Cell; row: Row; standing: Standing; stand: Stand; stop: string };

function CellButton({ cell, row, standing, stand, stop }: CellProps) {
  const marked = isAt(cell, standing);
  const tabStop = keyOf(cell) === stop;
  const zero = isZero(cell.amount);
  const plain = row.takes_off && !zero ? `−${units(cell.amount)}`.replace("−−", "") : units(cell.amount);
  const amount = row.balance ? balance(cell.amount) : plain;
  const at = { line: cell.line, scopes: cell.scopes.join(",") };
  const mark = marked ? "bg-wash outline-2 -outline-offset-2 outline-petrol" : "hover:bg-wash";
  return (
    <button
      type="button"
      data-cell={keyOf(cell)}
      aria-pressed={marked}
      aria-label={`${row.label}: ${amount}${isZero(cell.lost) ? "" : `, ${units(cell.lost)} lost to a limit`}${moved(cell)}`}
      className={`block h-[25px] w-full px-3 text-right whitespace-nowrap ${mark} ${cell.beside ? "font-normal text-soft italic" : ""}`}
      onClick={() => stand(at)}
      title={cell.beside ? "Within another part, or on a return of its own" : undefined}
      tabIndex={tabStop ? 0 : -1}
    >
      <Flow people={cell.to ?? []} out />
      <Flow people={cell.from ?? []} />
      {zero ? <span aria-hidden="true">{row.result ? "0" : "·"}</span> : amount}
      {Number(cell.lost) > 0 && <Notch lost={units(cell.lost)} />}
    </button>
  );
}

/** To or from whose returns the amount moved, in words. */
function moved(cell: Cell) {
  const told = (word: string, people?: string[]) => (people?.length ? `, moved ${word} another return` : "");
  return told("to", cell.to) + told("in from", cell.from);
}

/** An amount that leaves for another return, or came from one. */
function Flow({ people, out }: { people: string[]; out?: boolean }) {
  const { opened } = useDesk();
  const names = opened.household.people.filter((p) => people.includes(p.id)).map((p) => p.name.split(" ")[0]);
  if (names.length === 0) return null;
  return (
    <span className="mr-1.5 text-[12px] font-normal text-petrol" aria-hidden="true">
      {out ? "→" : "←"} {names.join(", ")}
    </span>
  );
}

function mark(button: HTMLElement) {
  button.focus();
  button.click();
}

/** Moves the mark to the next cell in a direction, over empty ones. */
function walk(table: HTMLTableElement, down: number, right: number) {
  const rows = [...table.querySelectorAll("tbody tr")];
  const here = document.activeElement?.closest("td");
  if (!here) return;
  let row = rows.indexOf(here.closest("tr") as HTMLTableRowElement);
  let column = here.cellIndex;
  for (;;) {
    row += down;
    column += right;
    const target = (rows[row] as HTMLTableRowElement | undefined)?.cells;
    if (!target || column < 1 || (right !== 0 && column >= target.length)) return;
    const button = target[column]?.querySelector("button");
    if (button) return mark(button);
  }
}

export function PanelHead({
  over,
  title,
  children,
}: {
  over: string;
  title: string;
  children?: React.ReactNode;
}) {
  return (
    <div className="px-4 pt-3.5 pb-2">
      <span className="text-soft">{over}</span>
      <h2 className="text-[15px]">{title}</h2>
      {children}
    </div>
  );
}

/** How far a person and the person's papers are. */
function HowFar({ person }: { person: string }) {
  const { opened } = useDesk();
  const found = opened.household.people.find((one) => one.id === person);
  return found && <Mark far={personFar(found, opened)} of={found.name} />;
}
