// The trail: how a line came to be, step by step, down to the boxes.
import { Link, useNavigate } from "@tanstack/react-router";
import { useEffect, useRef, useState } from "react";
import type { Limit, Line, LineInput } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { NotesAt } from "../notes/NotesAt";
import type { Standing } from "../router";
import { figure, LimitBlock } from "../spread/CellPanel";
import { fedBy, linesAt, useTrail } from "../spread/lines";
import { exact, precise } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Blank, Button, Key, Waiting } from "../ui/pieces";
import { useEntered } from "./Entered";

type Props = {
  line: string;
  scopes: string;
  /** What another way takes of each decision; the chosen way where it is left out. */
  way?: string;
  stand: (search: Standing) => void;
};

export function Trail({ line, scopes, way, stand }: Props) {
  const { opened } = useDesk();
  const trail = useTrail({ line, scopes, way });
  const entered = useEntered();
  const all = trail.data ?? [];
  const [back, setBack] = useState<Standing[]>([]);
  const [mark, setMark] = useState({ here: "", at: 0 });
  const navigate = useNavigate();
  const panel = useRef<HTMLDivElement>(null);
  const here = `${line}@${scopes}`;
  // A new line begins at its first step.
  const at = mark.here === here ? mark.at : 0;
  const setAt = (step: number) => setMark({ here, at: step });
  const lines = linesAt(all, line, scopes);
  const steps = lines.flatMap((l) => l.inputs ?? []).filter((i) => i.from !== "figure");
  const into = (input: LineInput | undefined) => {
    if (input?.from === "line") {
      follow.current = true;
      setBack([...back, { line, scopes }]);
      stand({ line: input.id, scopes: input.scope, trail: true });
    }
    if (input?.from === "box")
      void navigate({ to: "/h/$id/papers", params: { id: opened.id }, search: boxOf(input) });
  };
  const goBack = () => {
    const last = back.at(-1);
    follow.current = true;
    setBack(back.slice(0, -1));
    if (last) stand({ ...last, trail: true });
  };
  // Opening the trail and walking in it keep the focus here; walking the Spread beside it does not.
  const follow = useRef(true);
  useEffect(() => {
    if (!panel.current) return;
    if (follow.current) panel.current.focus();
    follow.current = false;
  });
  const inPanel = (act: () => void) => () => panel.current?.contains(document.activeElement) && act();
  useKeys({
    ArrowDown: inPanel(() => setAt(Math.min(at + 1, steps.length - 1))),
    ArrowUp: inPanel(() => setAt(Math.max(at - 1, 0))),
    ArrowRight: inPanel(() => into(steps[at])),
    ArrowLeft: inPanel(goBack),
    c: () => void navigator.clipboard?.writeText(asText(lines, entered)),
  });
  if (trail.isPending) return <Waiting what="Following the trail…" />;
  if (trail.error) return <Blank title="The trail cannot be shown">{trail.error.message}</Blank>;
  if (lines.length === 0) return <Blank title="This line does not arise in the chosen way" />;
  return (
    <div ref={panel} tabIndex={-1} className="flex min-h-full flex-col outline-none">
      {lines.map((l) => (
        <OneLine
          key={l.scope}
          line={l}
          all={all}
          marked={steps[at]}
          into={into}
          limits={way ? [] : opened.outcome.limits}
        />
      ))}
      {lines[0] && (
        <div className="px-4">
          <NotesAt
            place={{ line, scope: scopes }}
            about={[lines[0].place, lines[0].label].filter(Boolean).join(" · ")}
          />
        </div>
      )}
      <div className="mt-auto flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-3 text-soft">
        {back.length > 0 && (
          <Button tone="quiet" onClick={goBack}>
            Back
          </Button>
        )}
        <Button tone="quiet" onClick={() => stand({ line, scopes })}>
          Close the trail
        </Button>
        <Link
          to="/h/$id/computation"
          params={{ id: opened.id }}
          search={{ line, scopes }}
          className="text-petrol underline"
        >
          The whole computation
        </Link>
        <span>
          <Key>↑</Key> <Key>↓</Key> walk
        </span>
        <span>
          <Key>→</Key> into
        </span>
        <span>
          <Key>←</Key> back
        </span>
        <span>
          <Key>C</Key> copy as text
        </span>
      </div>
    </div>
  );
}

export const boxOf = (input: Extract<LineInput, { from: "box" }>) => ({
  paper: input.paper,
  field: input.field,
  row: input.row ?? undefined,
});

function OneLine({
  line,
  all,
  marked,
  into,
  limits: known,
}: {
  line: Line;
  all: Line[];
  marked: LineInput | undefined;
  into: (i: LineInput) => void;
  limits: Limit[];
}) {
  const limits = known.filter((l) => l.line === line.id && l.scope === line.scope);
  const feeds = fedBy(all, line);
  return (
    <article>
      <header className="border-b border-rule px-4 pt-3.5 pb-3">
        <span className="text-soft">Trail · {[line.whose, line.place].filter(Boolean).join(" · ")}</span>
        <h2 className="text-[15px]">{line.label}</h2>
        <p className="text-[22px] font-bold">{precise(line.amount)}</p>
      </header>
      <ol className="relative ml-5 border-l border-plum">
        {(line.inputs ?? []).map((input, i) => (
          <li key={i} className="row-line relative bg-sheet py-1.5 pr-4 pl-4">
            <span className="absolute top-2.5 -left-[5px] size-[9px] bg-plum" aria-hidden="true" />
            <Step input={input} marked={input === marked} into={into} />
          </li>
        ))}
        <li className="relative bg-sheet py-2 pr-4 pl-4">
          <span className="absolute top-3 -left-[5px] size-[9px] bg-petrol" aria-hidden="true" />
          <div className="flex justify-between font-bold">
            <span>{line.label}</span>
            <span>{precise(line.amount)}</span>
          </div>
          <Workings of={line} />
          <p className="text-soft">{line.how}</p>
          <b className="font-semibold">{[line.cite, line.place].filter(Boolean).join(" · ")}</b>
        </li>
      </ol>
      <div className="space-y-2 px-4 py-2">
        {limits.map((limit) => (
          <LimitBlock key={limit.id} limit={limit} />
        ))}
        {feeds.length > 0 && (
          <p>
            Feeds{" "}
            {feeds.map((l, i) => (
              <span key={l.id + l.scope}>
                {i > 0 && ", "}
                <Button
                  tone="quiet"
                  className="px-0"
                  onClick={() =>
                    into({ from: "line", id: l.id, scope: l.scope, label: l.label, amount: l.amount })
                  }
                >
                  {l.label} {precise(l.amount)}
                </Button>
              </span>
            ))}
          </p>
        )}
      </div>
    </article>
  );
}

/** How a line was worked out, with its figures. */
export function Workings({ of: { workings = [] } }: { of: Line }) {
  return workings.map((how) => (
    <p key={how} className="text-right text-plum">
      {how}
    </p>
  ));
}

function Step({ input, marked, into }: { input: LineInput; marked: boolean; into: (i: LineInput) => void }) {
  const { opened } = useDesk();
  const entered = useEntered();
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (marked && button.current?.closest("aside")?.contains(document.activeElement)) button.current.focus();
  }, [marked]);
  const tone = "flex w-full justify-between gap-4 text-left hover:text-petrol";
  const under = "underline decoration-dotted underline-offset-3";
  switch (input.from) {
    case "line":
      return (
        <button type="button" ref={button} className={tone} onClick={() => into(input)}>
          <span>
            <span className={under}>{input.label}</span>
            {input.moved_from && <MovedFrom person={input.moved_from} />}
          </span>
          <span className="font-semibold">{precise(input.amount)}</span>
        </button>
      );
    case "box":
      return (
        <>
          <Link to="/h/$id/papers" params={{ id: opened.id }} search={boxOf(input)} className={tone}>
            <span className={under}>{input.label}</span>
            <span className="font-semibold">{exact(input.amount)}</span>
          </Link>
          <span className="block text-[12px] text-soft">{entered(input)}</span>
        </>
      );
    case "figure":
      return (
        <div className="flex justify-between gap-4 text-soft">
          <span>{input.label}</span>
          <span>{figure(input)}</span>
        </div>
      );
  }
}

/** From whose return an amount moved here. */
export function MovedFrom({ person }: { person: string }) {
  const { opened } = useDesk();
  const name = opened.household.people.find((p) => p.id === person)?.name ?? person;
  return <span className="ml-2 text-[12px] text-petrol">← from the return of {name.split(" ")[0]}</span>;
}

/** The trail of a line as plain text. */
function asText(lines: Line[], entered: ReturnType<typeof useEntered>) {
  const by = (i: LineInput) => (i.from === "box" && entered(i) ? ` (${entered(i)})` : "");
  const step = (i: LineInput) => `  ${i.label}: ${i.from === "figure" ? i.value : exact(i.amount)}${by(i)}`;
  const one = (l: Line) =>
    [
      `${l.label}${l.place && ` (${l.place})`}, ${l.whose}: ${precise(l.amount)}`,
      ...(l.inputs ?? []).map(step),
      ...(l.workings ?? []).map((how) => `  = ${how}`),
      `  ${l.how} ${l.cite}`,
    ].join("\n");
  return lines.map(one).join("\n\n");
}
