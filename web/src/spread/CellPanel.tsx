// What a cell holds: its papers, its limits, and what a change would do.
import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { api, ask } from "../api/client";
import type { Limit, Line, Paper } from "../api/types";
import { paperName } from "../desk/newPaper";
import { useDesk } from "../desk/useDesk";
import type { Standing } from "../router";
import { Workings } from "../trail/Trail";
import { QuickMoves } from "../trials/QuickMoves";
import { difference, exact, isZero, precise, units } from "../ui/format";
import { Button, Key, Waiting } from "../ui/pieces";
import { Turns } from "../ways/Turns";
import { type BoxInput, boxesBehind, linesAt, useTrail } from "./lines";
import { PanelHead } from "./SpreadView";

type Props = { line: string; scopes: string; stand: (search: Standing) => void };

export function CellPanel({ line, scopes, stand }: Props) {
  const { opened } = useDesk();
  const { outcome, household } = opened;
  const trail = useTrail({ line, scopes });
  const all = trail.data ?? [];
  const lines = linesAt(all, line, scopes);
  const shown = lines[0];
  if (trail.isPending) return <Waiting what="Looking it up…" />;
  if (trail.error) return <PanelHead over="No answer" title={trail.error.message} />;
  if (!shown) {
    return <PanelHead over="Not in this way" title="This line does not arise in the chosen way." />;
  }
  const boxes = boxesBehind(all, lines);
  const papers = [...new Set(boxes.map((b) => b.paper))];
  const first = household.papers?.find((p) => p.id === papers[0]);
  const limits = outcome.limits.filter((l) => l.line === line && scopes.split(",").includes(l.scope));
  return (
    <div className="flex min-h-full flex-col">
      <PanelHead over={lines.map((l) => l.whose).join(" · ")} title={shown.label}>
        <p className="text-soft">
          {shown.place && `${shown.place} · `}
          <b className="font-semibold">{shown.cite}</b>
        </p>
      </PanelHead>
      <div className="space-y-3 px-4 pb-3">
        {papers.slice(0, 4).map((id) => (
          <PaperCard key={id} id={id} boxes={boxes.filter((b) => b.paper === id)} />
        ))}
        {papers.length > 4 && (
          <p className="text-soft">and {papers.length - 4} more papers, all in the trail</p>
        )}
        {limits.map((limit) => (
          <LimitBlock key={limit.id + limit.scope} limit={limit} />
        ))}
        <div>
          {lines.map((l) => (
            <Workings key={l.scope} of={l} />
          ))}
          <p className="text-soft">{shown.how}</p>
        </div>
        <Parts lines={lines} stand={stand} />
        {first && <Changes paper={first} />}
        {first && <QuickMoves paper={first} box={boxes.find((box) => box.paper === first.id)} />}
        <Turns />
      </div>
      <div className="mt-auto flex gap-3 px-4 pb-4 text-soft">
        <Button tone="quiet" onClick={() => stand({ line, scopes, trail: true })}>
          Open the trail
        </Button>
        <span>
          <Key>T</Key>
        </span>
        <span>
          <Key>N</Key> new paper
        </span>
      </div>
    </div>
  );
}

/** How many boxes of a paper the panel shows. */
const MOST_BOXES = 5;

function PaperCard({ id, boxes }: { id: string; boxes: BoxInput[] }) {
  const { opened } = useDesk();
  const paper = opened.household.papers?.find((p) => p.id === id);
  const amount = opened.outcome.papers.find((p) => p.paper === id)?.amount ?? "0";
  if (!paper) return null;
  return (
    <div className="border border-rule bg-sheet px-3 py-2">
      <Link
        to="/h/$id/papers"
        params={{ id: opened.id }}
        search={{ paper: id, field: boxes[0]?.field, row: boxes[0]?.row ?? undefined }}
        className="flex justify-between font-semibold hover:underline"
      >
        <span>
          {paper.kind} {paper.title && `· ${paper.title}`}
        </span>
        <span>{exact(amount)}</span>
      </Link>
      {boxes.slice(0, MOST_BOXES).map((box) => (
        <div key={`${box.field}${box.row}${box.amount}`} className="flex justify-between gap-3 pt-0.5">
          <span className="truncate text-soft">
            {box.label.split(" · ").slice(1).join(" · ") || box.label}
          </span>
          <span>{exact(box.amount)}</span>
        </div>
      ))}
      {boxes.length > MOST_BOXES && (
        <p className="pt-0.5 text-soft">and {boxes.length - MOST_BOXES} more, all in the trail</p>
      )}
    </div>
  );
}

/** Up to where all is allowed. */
function cap({ shape, edge }: Limit) {
  return shape === "cap" && edge ? `; cap ${precise(edge)}` : "";
}

export function LimitBlock({ limit }: { limit: Limit }) {
  const [entered, allowed] = [Number(limit.entered), Number(limit.allowed)];
  const lost = !isZero(limit.lost);
  return (
    <div className={`border-l-4 px-3 py-2 ${lost ? "border-ochre bg-sand" : "border-rule bg-sheet"}`}>
      <b>
        {lost
          ? `${precise(limit.lost)} lost — ${limit.how}`
          : `All ${precise(limit.allowed)} allowed${cap(limit)}`}
      </b>
      <span
        className="my-1.5 block h-2 border border-ochre bg-[repeating-linear-gradient(135deg,#fff_0_3px,#e5bf8c_3px_4px)]"
        aria-hidden="true"
      >
        <span
          className="block h-full bg-ochre"
          style={{ width: `${entered > 0 ? (100 * allowed) / entered : 0}%` }}
        />
      </span>
      {lost && `${precise(limit.allowed)} allowed of ${precise(limit.entered)}. `}
      {limit.edge &&
        limit.distance &&
        !(limit.shape === "cap" && !lost) &&
        `Changes at ${precise(limit.edge)}, ${precise(limit.distance)} from here. `}
      <b className="text-ochre">{limit.cite}</b>
    </div>
  );
}

function Parts({ lines, stand }: { lines: Line[]; stand: (search: Standing) => void }) {
  const inputs = lines.flatMap((l) => l.inputs ?? []).filter((i) => i.from !== "box");
  if (inputs.length === 0) return null;
  return (
    <dl className="border-t border-rule pt-2">
      {inputs.map((input, i) => (
        <div key={i} className="flex justify-between gap-3 py-0.5">
          <dt>
            {input.from === "line" ? (
              <Button
                tone="quiet"
                className="min-h-[24px] px-0 text-left"
                onClick={() => stand({ line: input.id, scopes: input.scope, trail: true })}
              >
                {input.label}
              </Button>
            ) : (
              input.label
            )}
          </dt>
          <dd className="font-semibold">{input.from === "line" ? precise(input.amount) : figure(input)}</dd>
        </div>
      ))}
    </dl>
  );
}

export function figure(input: { from: string; value?: string }) {
  const value = input.value ?? "";
  return /^-?\d+\.\d\d$/.test(value) ? precise(value) : value;
}

function Changes({ paper }: { paper: Paper }) {
  const { opened } = useDesk();
  const effect = useQuery({
    queryKey: ["effect", opened.id, opened.revision, paper.id],
    queryFn: () =>
      ask(
        api.GET("/api/households/{id}/effect", {
          params: { path: { id: opened.id }, query: { paper: paper.id } },
        }),
      ),
  });
  const change = (amount: string) => (isZero(amount) ? "no change" : `${difference(amount)} tax`);
  if (!effect.data) return null;
  const { with_more, without, way_without, step } = effect.data;
  return (
    <section className="border-t border-rule pt-2">
      <h3 className="mb-1">What this changes</h3>
      <dl>
        {with_more && (
          <div className="flex justify-between gap-3">
            <dt>
              {units(step)} more on {paperName(paper)}
            </dt>
            <dd className="font-semibold whitespace-nowrap">{change(with_more)}</dd>
          </div>
        )}
        <div className="flex justify-between gap-3">
          <dt>Without {paperName(paper)}</dt>
          <dd className="font-semibold whitespace-nowrap">{change(without)}</dd>
        </div>
        {way_without && (
          <div className="flex justify-between gap-4">
            <dt>Then best way</dt>
            <dd className="text-right font-semibold">{way_without.name}</dd>
          </div>
        )}
      </dl>
    </section>
  );
}
