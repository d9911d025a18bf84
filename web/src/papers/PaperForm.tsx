// The boxes of one paper. Tab and Enter walk them in the printed order; a box is stored when it is left.

import { useNavigate } from "@tanstack/react-router";
import { Fragment, useId, useState } from "react";
import type { CellMade, Command, Drawn, Entry, Field, Paper, PaperKind, Point } from "../api/types";
import { type How, useDesk } from "../desk/useDesk";
import { EntryBox, shownEntry } from "../entry/EntryBox";
import { field } from "../entry/field";
import { DoneBeside, PutAside } from "../points/PointsView";
import { capital, count, exact } from "../ui/format";
import { Button, Diamond, Key } from "../ui/pieces";
import { Removing } from "../ui/Removing";
import { markAmount } from "../ways/useCurve";
import { Codes } from "./Codes";
import { DrawnPicture } from "./DrawnPicture";
import { Owners } from "./Owners";
import { checkOf } from "./PaperList";
import { PayerOptions } from "./PayerOptions";
import { useOffered } from "./payers";
import { Receipts } from "./Receipts";
import { RefusedHere } from "./RefusedHere";
import { Stepped } from "./Stepped";

type At = { field: string | undefined; row: string | undefined };

const TITLE = (label: string) => field("title", label, { type: "text", max: 120 });

export function PaperForm({ paper, kind, at }: { paper: Paper; kind: PaperKind; at: At }) {
  const { opened, edit } = useDesk();
  const points = opened.outcome.points.filter((p) => p.place.paper === paper.id && !p.dismissed);
  const atBox = (p: Point) => !p.place.row && kind.boxes.some((box) => box.id === p.place.field);
  const ofList = points.filter((p) => !atBox(p));
  const changed = (paper.changed ?? []).length > 0;
  const [looked, setLooked] = useState<CellMade>();
  const { drawn } = opened.outcome.papers.find((p) => p.paper === paper.id) ?? {};
  return (
    <div className="px-6 pt-4 pb-8 max-desk:px-3">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-[17px]">
          {kind.id}
          {paper.title && ` · ${paper.title}`}
        </h2>
        <span className="flex gap-2">
          <Button
            aria-pressed={paper.checked === true && !changed}
            onClick={() => edit([{ do: "set_paper", paper: paper.id, checked: changed || !paper.checked }])}
          >
            {paper.checked && !changed ? "✓ Checked against the original" : "Mark as checked"}
          </Button>
          <RemovePaper paper={paper} />
        </span>
      </div>
      <p className="mb-3 flex justify-between text-soft">
        {kind.name}
        {changed && <b className="text-ochre">{capital(checkOf(paper))}</b>}
      </p>
      <div className="mb-4 grid grid-cols-2 gap-x-7 max-md:grid-cols-1">
        <BoxLine label={kind.title} wide>
          <Title paper={paper} kind={kind} focus={at.field === "title"} />
        </BoxLine>
        <Owners paper={paper} kind={kind} />
      </div>
      <RefusedHere place={{ paper: paper.id }} but={kind.boxes.map((box) => box.id)} />
      {kind.columns.length === 0 && ofList.map((point) => <PointNote key={point.id} point={point} />)}
      {kind.boxes.length > 0 && <Boxes paper={paper} kind={kind} points={points} at={at} />}
      {kind.columns.length > 0 && (
        <Receipts paper={paper} kind={kind} points={ofList} at={at} look={setLooked} />
      )}
      {drawn?.picture && <DrawnPicture picture={drawn.picture} />}
      {drawn && drawn.panels.length > 0 && (
        <Weighed paper={paper} kind={kind} drawn={drawn} looked={looked} />
      )}
    </div>
  );
}

type WeighedProps = { paper: Paper; kind: PaperKind; drawn: Drawn; looked: CellMade | undefined };

/** Amounts that are weighed against each other, side by side, what follows, and what the codes of the list mean. */
function Weighed({ paper, kind, drawn, looked }: WeighedProps) {
  const cell = drawn.cells.find((one) => one.row === looked?.row && one.column === looked.column);
  return (
    <section aria-label="What it comes to" className="mt-5">
      <div className="grid grid-cols-3 gap-x-3.5 max-md:grid-cols-1">
        {drawn.panels.map(({ title, amount, how, rules }) => (
          <div key={title} className={`border-t-2 pt-2 ${rules ? "border-petrol" : "border-rule"}`}>
            <b className="block">{title}</b>
            <b className="block text-[15px]">{exact(String(amount))}</b>
            <span className="text-soft">
              {how}
              {rules && " · this one counts"}
            </span>
          </div>
        ))}
      </div>
      <p className="mt-3">{drawn.conclusion}</p>
      {looked && <Stepped paper={paper.id} row={looked.row} />}
      <Codes paper={paper} kind={kind} drawn={drawn} cell={cell} />
    </section>
  );
}

/** What the title means; a payer's name brings its number along, where both are known. */
function Title({ paper, kind, focus }: { paper: Paper; kind: PaperKind; focus: boolean }) {
  const { pack, edit } = useDesk();
  const { known, setTyped, one } = useOffered();
  const list = useId();
  const names = pack.payer_titles.includes(kind.title);
  const number = kind.boxes.find((box) => box.payer === "number")?.id;
  const keep = (value: Entry | null, how: How) => {
    const commands: Command[] = [{ do: "set_paper", paper: paper.id, title: String(value ?? "") }];
    const payer = one(value, "name");
    if (names && number && payer?.number && paper.boxes?.[number] === undefined) {
      commands.push({ do: "set_box", paper: paper.id, field: number, value: payer.number });
    }
    return edit(commands, how);
  };
  return (
    <>
      <EntryBox
        field={TITLE(kind.title)}
        label={kind.title}
        value={paper.title || undefined}
        people={[]}
        focus={focus}
        list={names ? list : undefined}
        typing={names ? setTyped : undefined}
        keep={keep}
      />
      {names && <PayerOptions id={list} known={known} by="name" />}
    </>
  );
}

function Boxes({ paper, kind, points, at }: { paper: Paper; kind: PaperKind; points: Point[]; at: At }) {
  const { opened } = useDesk();
  const { suggestions = [] } = opened.outcome.papers.find((p) => p.paper === paper.id) ?? {};
  return (
    <>
      <div
        className="grid grid-cols-2 gap-x-7 max-md:grid-cols-1"
        onFocusCapture={(e) => {
          const box = (e.target as HTMLElement).dataset.box;
          if (box && Number(paper.boxes?.[box] ?? 0) !== 0) markAmount(opened.id, `${paper.id} ${box}`);
        }}
      >
        {kind.boxes.map((field) => (
          <Fragment key={field.id}>
            <PartHeading kind={kind} field={field} />
            <Box
              paper={paper}
              field={field}
              offered={suggestions.find((s) => s.field === field.id)?.value}
              points={points.filter((p) => p.place.field === field.id)}
              focus={at.field === field.id}
            />
          </Fragment>
        ))}
      </div>
      {suggestions.length > 0 && (
        <p className="mt-4 text-soft">
          Dashed figures are what the boxes before them make. <Key>↵</Key> takes one over; typing replaces it.
        </p>
      )}
    </>
  );
}

/** Before the first box of a part of a gathered paper: which paper the part is. */
function PartHeading({ kind, field }: { kind: PaperKind; field: Field }) {
  const { pack } = useDesk();
  const parts = pack.gathered.find((gathered) => gathered.id === kind.id)?.parts ?? [];
  const part = parts.find(({ prefix }) => {
    const first = kind.boxes.find((box) => box.id.startsWith(`${prefix}.`));
    return first?.id === field.id;
  });
  if (!part) return null;
  const of = pack.paper_kinds.find((other) => other.id === part.kind);
  return (
    <h3 className="col-span-full border-b border-ink pt-4 pb-0.5 font-semibold">
      {part.kind} <span className="font-normal text-soft">{of?.name}</span>
    </h3>
  );
}

/** What a box of half a line shows of a choice. */
const SHOWN = 18;

/** How many characters of a text half a line has room for. */
const SHORT = 8;

/** Words need a whole line, and so does a choice that is cut in half of one, but a code that begins with its letter or number. */
function isLong({ kind }: Field) {
  if (kind.type !== "choice") return kind.type === "text" && kind.max > SHORT;
  const coded = kind.options.some(({ label }) => label.includes(" · "));
  return !coded && kind.options.length < 20 && kind.options.some(({ label }) => label.length > SHOWN);
}

type BoxProps = { paper: Paper; field: Field; offered: string | undefined; points: Point[]; focus: boolean };

function Box({ paper, field, offered, points, focus }: BoxProps) {
  const { opened, edit } = useDesk();
  const { known, setTyped, one } = useOffered();
  const list = useId();
  const isNumber = field.payer === "number";
  const keep = (value: Entry | null, how?: How) => {
    const commands: Command[] = [{ do: "set_box", paper: paper.id, field: field.id, value }];
    const payer = isNumber ? one(value, "number") : undefined;
    if (payer && !paper.title) commands.push({ do: "set_paper", paper: paper.id, title: payer.name });
    return edit(commands, how);
  };
  const help = `help-${field.id}`;
  return (
    <>
      <BoxLine
        number={field.number}
        label={field.label}
        help={field.help}
        helpId={help}
        before={paper.before?.[field.id]}
        wide={isLong(field)}
      >
        <EntryBox
          field={field}
          label={`${field.number} ${field.label}`.trim()}
          value={paper.boxes?.[field.id]}
          people={opened.household.people}
          offered={offered}
          focus={focus}
          keep={keep}
          secretAt={{ paper: paper.id, field: field.id }}
          list={isNumber ? list : undefined}
          typing={isNumber ? setTyped : undefined}
          describedBy={field.help || paper.before?.[field.id] ? help : undefined}
        />
      </BoxLine>
      {isNumber && <PayerOptions id={list} known={known} by="number" />}
      <RefusedHere place={{ paper: paper.id, field: field.id }} />
      {points.map((point) => (
        <PointNote
          key={point.id}
          point={point}
          use={point.suggested ? () => keep(point.suggested ?? null) : undefined}
          told={point.suggested ? shownEntry(field, opened.household.people, point.suggested) : undefined}
        />
      ))}
    </>
  );
}

type BoxLineProps = {
  number?: string;
  label: string;
  help?: string;
  helpId?: string;
  /** Last year's amount. */
  before?: Entry;
  /** Words need a whole line. */
  wide?: boolean;
  children: React.ReactNode;
};

export function BoxLine({ number, label, help, helpId, before, wide, children }: BoxLineProps) {
  const { opened } = useDesk();
  return (
    <div
      className={`row-line grid min-h-[34px] items-center py-1 ${wide ? "col-span-full grid-cols-[minmax(30px,max-content)_11rem_1fr] max-md:grid-cols-[minmax(30px,max-content)_7rem_1fr]" : "grid-cols-[minmax(30px,max-content)_1fr_minmax(7.5rem,9rem)]"}`}
    >
      <b className={`text-soft ${number && number.length > 3 ? "pr-2" : ""}`}>{number}</b>
      <span className="pr-2">
        {label}
        {(help || before) && (
          <span id={helpId} className="block text-[12px] leading-tight text-soft">
            {help}
            {before && (
              <span className="block">
                {opened.household.year - 1}: {exact(String(before))}
              </span>
            )}
          </span>
        )}
      </span>
      {children}
    </div>
  );
}

/** A point where it stands: what to do, and the computed figure to take over. */
export function PointNote({ point, use, told }: { point: Point; use?: () => void; told?: string }) {
  return (
    <div className="col-span-full my-1 flex flex-wrap items-center gap-x-3 border-l-4 border-ochre bg-sand px-3 py-1.5">
      <span className="flex items-center gap-x-3">
        <Diamond solid={point.weight === "blocks"} />
        <span>
          <b>{point.message}</b> {point.remedy}
        </span>
      </span>
      {use && (
        <Button tone="quiet" onClick={use}>
          use {told}
        </Button>
      )}
      {point.beside && <DoneBeside point={point} />}
      {point.weight === "look" && <PutAside point={point} />}
    </div>
  );
}

function RemovePaper({ paper }: { paper: Paper }) {
  const { opened, edit } = useDesk();
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const boxes = Object.keys(paper.boxes ?? {}).length;
  const lines = paper.rows?.length ?? 0;
  const goes = [boxes > 0 && count(boxes, "filled box", "filled boxes"), lines > 0 && count(lines, "line")];
  const remove = async () => {
    await edit([{ do: "remove_paper", paper: paper.id }]);
    void navigate({ to: "/h/$id/papers", params: { id: opened.id }, search: {} });
  };
  return (
    <>
      <Button onClick={() => (goes.some(Boolean) ? setAsking(true) : void remove())}>Remove</Button>
      {asking && (
        <Removing
          what={`${paper.kind} ${paper.title ?? ""}`.trim()}
          goes={goes.filter((g) => g !== false)}
          remove={remove}
          leave={() => setAsking(false)}
        />
      )}
    </>
  );
}
