// Reading the trail: which lines a place shows, which boxes feed them, and what they feed.
import type { Line, LineInput, Outcome } from "../api/types";

export type BoxInput = Extract<LineInput, { from: "box" }>;

export function linesAt(outcome: Outcome, line: string, scopes: string): Line[] {
  const wanted = scopes.split(",");
  return outcome.lines.filter((l) => l.id === line && wanted.includes(l.scope));
}

/** The boxes behind some lines, at most `depth` lines away; parts of one box are added up. */
export function boxesBehind(outcome: Outcome, lines: Line[], depth = 2): BoxInput[] {
  const found = new Map<string, BoxInput>();
  const seen = new Set<Line>();
  const visit = (line: Line, left: number) => {
    if (seen.has(line)) return;
    seen.add(line);
    for (const input of line.inputs ?? []) {
      if (input.from === "box") add(found, input);
      if (input.from === "line" && left > 0) {
        for (const next of linesAt(outcome, input.id, input.scope)) visit(next, left - 1);
      }
    }
  };
  for (const line of lines) visit(line, depth);
  return [...found.values()];
}

function add(found: Map<string, BoxInput>, box: BoxInput) {
  const key = `${box.paper} ${box.field} ${box.row ?? ""}`;
  const there = found.get(key);
  const amount = (Number(there?.amount ?? 0) + Number(box.amount)).toFixed(2);
  found.set(key, { ...box, amount });
}

/** The lines that a line feeds. */
export function fedBy(outcome: Outcome, line: Line): Line[] {
  const feeds = (l: Line) =>
    (l.inputs ?? []).some((i) => i.from === "line" && i.id === line.id && i.scope === line.scope);
  return outcome.lines.filter((l) => feeds(l) && l !== line);
}
