// One slip box by box: what is held, what was keyed, and what becomes of it.
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import type { Beside, BesideLine, Entry, Field, Offered, OutsideView, PaperKind } from "../api/types";
import { useDesk, words } from "../desk/useDesk";
import { toldField } from "../papers/coded";
import { focusAtOnce } from "../ui/focus";
import { dayOf, exact } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Button, Key } from "../ui/pieces";
import { type Settling, useSettling } from "./useOutside";

const SOURCES: Record<string, string> = {
  authority: "What the authority holds",
  employer: "What the employer sent in",
  bank: "What the bank sent in",
  broker: "What the broker sent in",
  lender: "What the lender sent in",
  payer: "What the payer sent in",
};

type Props = { offered: Offered; fetched: OutsideView["fetched"]; next: () => void };

export function SlipBoxes({ offered, fetched, next }: Props) {
  const { pack } = useDesk();
  const kind = pack.paper_kinds.find((one) => one.id === offered.kind);
  const beside = offered.paper ? ", beside the paper that you keyed" : ": no such paper was keyed";
  return (
    <div className="max-w-3xl px-6 pt-4 pb-8">
      <h2 className="text-[17px]">
        {offered.kind}
        {offered.title && ` · ${offered.title}`}
      </h2>
      <p className="mb-3 text-soft">
        {offered.state === "gone"
          ? "It was taken from what is held, and is held no longer."
          : `${SOURCES[offered.source] ?? SOURCES.payer}, ${dayOf(offered.issued)}${beside}`}
      </p>
      {offered.boxes.length > 0 && (
        <table className="w-full">
          <thead>
            <tr className="text-soft">
              <th scope="col" className="w-8 text-left font-normal">
                Box
              </th>
              <td />
              <th scope="col" className="w-32 pb-1 text-right font-normal">
                held
              </th>
              <th scope="col" className="w-32 pb-1 text-right font-normal">
                keyed
              </th>
              <td className="w-40" />
            </tr>
          </thead>
          <tbody>
            {offered.boxes.map((of) => (
              <OneBox key={of.field} of={of} field={toldField(kind, of.field)} />
            ))}
          </tbody>
        </table>
      )}
      {kind && offered.lines.length > 0 && <Lines lines={offered.lines} kind={kind} />}
      {offered.boxes.some((of) => of.hint) && (
        <ul className="mt-3">
          {offered.boxes
            .filter((of) => of.hint)
            .map((of) => (
              <li key={of.field}>
                Box {numberOf(of, toldField(kind, of.field))}: {of.hint}
              </li>
            ))}
        </ul>
      )}
      {offered.reason && (
        <p className="mt-3 border-l-4 border-plum bg-lilac px-3 py-1.5">
          <b>{REASONS[offered.state] ?? ""}</b> {offered.reason}
        </p>
      )}
      <Deeds offered={offered} next={next} />
      {fetched?.again && <Since fetched={fetched} />}
    </div>
  );
}

const REASONS: Partial<Record<Offered["state"], string>> = {
  kept: "It stays as it was keyed:",
  refused: "Refused:",
  unusable: "It cannot be used:",
};

function numberOf(of: Beside, box: Field | undefined) {
  return box?.number || box?.label || of.field;
}

/** What stands in a box, as people read it. */
function told(entry: Entry | null | undefined, field: Field | undefined): string {
  if (entry === null || entry === undefined) return "";
  if (typeof entry === "boolean") return entry ? "yes" : "no";
  if (field?.kind.type === "amount") return exact(String(entry));
  if (field?.kind.type === "date") return dayOf(String(entry));
  if (field?.kind.type === "choice") {
    return field.kind.options.find((one) => one.id === entry)?.label ?? String(entry);
  }
  return String(entry);
}

function OneBox({ of, field }: { of: Beside; field: Field | undefined }) {
  const onlyKeyed = of.held === null || of.held === undefined;
  const onlyHeld = !onlyKeyed && (of.keyed === null || of.keyed === undefined);
  return (
    <tr className={`row-line h-[27px] ${of.agrees ? "" : "bg-wash"}`}>
      <td className="font-bold text-soft">{field?.number}</td>
      <th scope="row" className="text-left font-normal">
        {field?.label ?? of.field}
      </th>
      <td className="text-right">{told(of.held, field)}</td>
      <td className="text-right">{told(of.keyed, field)}</td>
      <td className="pl-4">
        {!of.agrees ? (
          <b className="text-ochre">
            {onlyHeld ? "only held" : of.apart ? `differs by ${exact(of.apart.replace("-", ""))}` : "differs"}
          </b>
        ) : onlyKeyed ? (
          <span className="text-soft">only keyed</span>
        ) : (
          <span className="text-petrol">agrees</span>
        )}
      </td>
    </tr>
  );
}

/** The lines of a list: what is held, and beneath it what was keyed where that says otherwise. */
function Lines({ lines, kind }: { lines: BesideLine[]; kind: PaperKind }) {
  const columns = kind.columns.filter((column) =>
    lines.some((of) => of.held?.[column.id] !== undefined || of.keyed?.[column.id] !== undefined),
  );
  return (
    <table className="mt-3 w-full">
      <thead>
        <tr className="text-soft">
          <td className="w-16" />
          {columns.map((column) => (
            <th key={column.id} scope="col" className={`pb-1 font-normal ${align(column)}`}>
              {column.label}
            </th>
          ))}
          <td className="w-40" />
        </tr>
      </thead>
      {lines.map((of, at) => (
        <tbody key={at} className={of.agrees ? "" : "bg-wash"}>
          {of.held && <Line what="held" cells={of.held} columns={columns} of={of} />}
          {of.keyed && !(of.held && of.agrees) && (
            <Line what="keyed" cells={of.keyed} columns={columns} of={of} />
          )}
        </tbody>
      ))}
    </table>
  );
}

const align = (column: Field) => (column.kind.type === "amount" ? "text-right" : "text-left");

type LineProps = {
  what: "held" | "keyed";
  cells: NonNullable<BesideLine["held"]>;
  columns: Field[];
  of: BesideLine;
};

function Line({ what, cells, columns, of }: LineProps) {
  const first = what === "held" || !of.held;
  return (
    <tr className="row-line h-[27px]">
      <th scope="row" className="text-left font-normal text-soft">
        {what}
      </th>
      {columns.map((column) => (
        <td key={column.id} className={align(column)}>
          {told(cells[column.id], column)}
        </td>
      ))}
      <td className="pl-4">
        {!first ? null : !of.agrees ? (
          <b className="text-ochre">{of.keyed ? "differs" : "only held"}</b>
        ) : !of.held ? (
          <span className="text-soft">only keyed</span>
        ) : (
          <span className="text-petrol">agrees</span>
        )}
      </td>
    </tr>
  );
}

/** What can become of a slip. */
function Deeds({ offered, next }: { offered: Offered; next: () => void }) {
  const { opened, pack, past } = useDesk();
  const settle = useSettling();
  const navigate = useNavigate();
  const [asking, setAsking] = useState<"keep" | "refuse">();
  const [wrong, setWrong] = useState<string | null>(null);
  const { slip, state, settled, paper } = offered;
  const canTake = !settled && (state === "new" || state === "differs" || state === "agrees");
  const deed = async (how: Settling, reason?: string) => {
    const refused = words(await settle([slip], how, reason));
    setWrong(refused);
    if (refused !== null) return;
    setAsking(undefined);
    if (how === "take" || how === "keep" || how === "refuse") next();
  };
  useKeys(canTake && !past ? { Enter: () => void deed("take") } : {});
  const goTo = (id: string, field?: string) =>
    void navigate({ to: "/h/$id/papers", params: { id: opened.id }, search: { paper: id, field } });
  if (past) return null;
  const kind = pack.paper_kinds.find((one) => one.id === offered.kind);
  const differing = offered.boxes.find(
    (of) => !of.agrees && kind?.boxes.some((box) => box.id === of.field),
  )?.field;
  return (
    <div className="mt-4">
      <div className="flex flex-wrap gap-1.5">
        {canTake && (
          <Button tone="main" onClick={() => void deed("take")}>
            {state === "agrees" ? "Mark as held" : state === "new" ? "Add the paper" : "Take what is held"}{" "}
            <Key>↵</Key>
          </Button>
        )}
        {state === "differs" && (
          <Button onClick={() => setAsking("keep")}>Keep what is keyed, with a reason</Button>
        )}
        {paper && (
          <Button onClick={() => goTo(paper, differing)}>
            {state === "differs" ? "Change what is keyed" : "Go to the paper"}
          </Button>
        )}
        {canTake && state !== "agrees" && (
          <Button onClick={() => setAsking("refuse")}>Refuse the slip…</Button>
        )}
        {(state === "refused" || state === "kept") && (
          <Button onClick={() => void deed("take_up")}>Take it up again</Button>
        )}
        {state === "gone" && <Button onClick={() => void deed("take_up")}>The paper stays, unmarked</Button>}
      </div>
      {asking && (
        <form
          className="mt-2 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void deed(asking, String(new FormData(event.currentTarget).get("reason")));
          }}
        >
          <input
            name="reason"
            className="box w-80!"
            aria-label="Reason"
            placeholder={asking === "keep" ? "Why what is keyed is right" : "Why it is not this family's"}
            required
            maxLength={500}
            ref={focusAtOnce}
            onKeyDown={(event) => event.key === "Escape" && setAsking(undefined)}
          />
          <Button type="submit">{asking === "keep" ? "Keep what is keyed" : "Refuse the slip"}</Button>
        </form>
      )}
      {wrong && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          {wrong}
        </p>
      )}
    </div>
  );
}

function Since({ fetched }: { fetched: NonNullable<OutsideView["fetched"]> }) {
  const told = (what: string, names: string[]) => (
    <p>
      <b className="font-semibold">{what}:</b> {names.length > 0 ? names.join(", ") : "nothing"}.
    </p>
  );
  return (
    <section className="mt-6 border-t border-rule pt-3">
      <h3 className="mb-1">Since the last fetch</h3>
      {told("New", fetched.new)}
      {told("Changed", fetched.changed)}
      {told("Gone", fetched.gone)}
      {fetched.strangers > 0 && (
        <p className="text-soft">
          {fetched.strangers} of people who are not in this household were left out.
        </p>
      )}
    </section>
  );
}
