// The whole computation of the chosen way on one page, return by return, as a worked example: every line with what it is made from,
// its rule and what it feeds. Foldable, printable, its links walk it.
import { useQuery } from "@tanstack/react-query";
import { Link, useSearch } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import { api, ask } from "../api/client";
import type { Limit, Line, LineInput } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { figure } from "../spread/CellPanel";
import { fedBy } from "../spread/lines";
import { count, exact, isZero, precise, units } from "../ui/format";
import { Blank, Button, Waiting } from "../ui/pieces";
import { useEntered } from "./Entered";
import { boxOf, MovedFrom } from "./Trail";

/** A return or a person, with its lines in the order of the computation. */
type Group = { scope: string; whose: string; lines: Line[] };

function grouped(lines: Line[]): Group[] {
  const groups = new Map<string, Group>();
  for (const line of lines) {
    const group = groups.get(line.scope) ?? { scope: line.scope, whose: line.whose, lines: [] };
    group.lines.push(line);
    groups.set(line.scope, group);
  }
  return [...groups.values()];
}

/** Whether a line says something: an amount, or something that it is made from. */
function says(line: Line) {
  const inputs = line.inputs ?? [];
  return !isZero(line.amount) || inputs.some((i) => i.from !== "figure" && !isZero(i.amount));
}

const idOf = (id: string, scope: string) => `${id}@${scope}`;

export function ComputationView() {
  const { opened } = useDesk();
  const standing = useSearch({ from: "/h/$id" });
  const [all, setAll] = useState(false);
  const path = { id: opened.id, revision: opened.revision };
  const asked = useQuery({
    queryKey: ["computation", opened.id, opened.revision],
    queryFn: ({ signal }) =>
      ask(
        api.GET("/api/households/{id}/revisions/{revision}/lines", {
          params: { path, query: { whole: true } },
          signal,
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const from = idOf(standing.line ?? "", standing.scopes?.split(",")[0] ?? "");
  const ready = asked.data !== undefined;
  useEffect(() => {
    if (ready) document.getElementById(from)?.scrollIntoView({ block: "center" });
  }, [from, ready]);
  if (asked.error) return <Blank title="The computation cannot be shown">{asked.error.message}</Blank>;
  if (!asked.data) return <Waiting what="Writing the computation down…" />;
  const lines = asked.data;
  const told = all ? lines : lines.filter(says);
  const groups = grouped(told);
  const shown = new Set(told.map((line) => idOf(line.id, line.scope)));
  return (
    <section
      aria-label="The whole computation"
      tabIndex={0}
      className="h-full overflow-auto px-6 py-4 print:h-auto print:overflow-visible"
    >
      <header className="flex flex-wrap items-baseline gap-x-4 border-b border-ink pb-2">
        <h2 className="text-[18px]">The whole computation</h2>
        <span className="text-soft">
          {opened.outcome.together} · total tax {units(opened.outcome.total)} · revision {opened.revision}
          {!opened.outcome.covered && " · not a result"}
        </span>
        <span className="ml-auto flex items-center gap-4 print:hidden">
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={all} onChange={(e) => setAll(e.target.checked)} />
            lines of nothing, too
          </label>
          <Button onClick={() => window.print()}>Print</Button>
        </span>
      </header>
      {groups.map((group) => (
        <details key={group.scope} open className="mt-3">
          <summary className="cursor-pointer py-1 text-[15px] font-bold text-plum">
            {group.whose} <span className="text-[12px] font-normal">{count(group.lines.length, "line")}</span>
          </summary>
          <ol className="bg-sheet">
            {group.lines.map((line) => (
              <Written
                key={line.id}
                line={line}
                all={told}
                shown={shown}
                marked={idOf(line.id, line.scope) === from}
                limits={opened.outcome.limits.filter((l) => l.line === line.id && l.scope === line.scope)}
              />
            ))}
          </ol>
        </details>
      ))}
    </section>
  );
}

type WrittenProps = { line: Line; all: Line[]; shown: Set<string>; marked: boolean; limits: Limit[] };

function Written({ line, all, shown, marked, limits }: WrittenProps) {
  const feeds = fedBy(all, line);
  return (
    <li
      id={idOf(line.id, line.scope)}
      className={`row-line grid grid-cols-[minmax(12rem,2fr)_3fr_7rem] gap-x-5 px-3 py-2 break-inside-avoid max-md:block ${marked ? "bg-wash" : ""}`}
    >
      <div>
        <b>{line.label}</b>
        <p className="text-[12px] text-soft">{[line.place, line.cite].filter(Boolean).join(" · ")}</p>
      </div>
      <div>
        <ul>
          {(line.inputs ?? []).map((input, i) => (
            <li key={i} className="flex justify-between gap-4">
              <MadeFrom input={input} shown={shown} />
            </li>
          ))}
        </ul>
        {(line.workings ?? []).map((how) => (
          <p key={how} className="text-right text-plum">
            {how}
          </p>
        ))}
        {limits
          .filter((limit) => !isZero(limit.lost))
          .map((limit) => (
            <p key={limit.id} className="text-ochre">
              {precise(limit.lost)} lost — {limit.how} ({limit.cite})
            </p>
          ))}
        <p className="text-[12px] text-soft">{line.how}</p>
        {feeds.length > 0 && (
          <p className="text-[12px] text-soft print:hidden">
            Feeds{" "}
            {feeds.map((fed, i) => (
              <span key={idOf(fed.id, fed.scope)}>
                {i > 0 && ", "}
                <a className="underline decoration-dotted" href={`#${idOf(fed.id, fed.scope)}`}>
                  {fed.label}
                </a>
              </span>
            ))}
          </p>
        )}
      </div>
      <b className="text-right">{precise(line.amount)}</b>
    </li>
  );
}

/** What a line is made from; a line of nothing that is not shown is no link. */
function MadeFrom({ input, shown }: { input: LineInput; shown: Set<string> }) {
  const { opened } = useDesk();
  const entered = useEntered();
  const under = "underline decoration-dotted underline-offset-3 print:no-underline";
  switch (input.from) {
    case "line":
      return (
        <>
          <span>
            {shown.has(idOf(input.id, input.scope)) ? (
              <a className={under} href={`#${idOf(input.id, input.scope)}`}>
                {input.label}
              </a>
            ) : (
              input.label
            )}
            {input.moved_from && <MovedFrom person={input.moved_from} />}
          </span>
          <span>{precise(input.amount)}</span>
        </>
      );
    case "box":
      return (
        <>
          <span>
            <Link to="/h/$id/papers" params={{ id: opened.id }} search={boxOf(input)} className={under}>
              {input.label}
            </Link>
            <span className="block text-[12px] text-soft">{entered(input)}</span>
          </span>
          <span>{exact(input.amount)}</span>
        </>
      );
    case "figure":
      return (
        <>
          <span className="text-soft">{input.label}</span>
          <span className="text-soft">{figure(input)}</span>
        </>
      );
  }
}
