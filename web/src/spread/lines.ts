// Reading the trail: which lines a place shows, which boxes feed them, and what they feed.
import type { Line, LineInput, Outcome } from "../api/types";

export type BoxInput = Extract<LineInput, { from: "box" }>;

export function linesAt(outcome: Outcome, line: string, scopes: string): Line[] {
  const wanted = scopes.split(",");
  return outcome.lines.filter((l) => l.id === line && wanted.includes(l.scope));
}

/** The boxes behind some lines, through the lines of the same paper trail: at most `depth` lines away. */
export function boxesBehind(outcome: Outcome, lines: Line[], depth = 2): BoxInput[] {
  const boxes: BoxInput[] = [];
  for (const line of lines) {
    for (const input of line.inputs ?? []) {
      if (input.from === "box") boxes.push(input);
      if (input.from === "line" && depth > 0) {
        boxes.push(...boxesBehind(outcome, linesAt(outcome, input.id, input.scope), depth - 1));
      }
    }
  }
  return boxes.filter((box, i) => boxes.findIndex((b) => sameBox(b, box)) === i);
}

function sameBox(a: BoxInput, b: BoxInput) {
  return a.paper === b.paper && a.field === b.field && a.row === b.row && a.amount === b.amount;
}

/** The lines that a line feeds. */
export function fedBy(outcome: Outcome, line: Line): Line[] {
  const feeds = (l: Line) =>
    (l.inputs ?? []).some((i) => i.from === "line" && i.id === line.id && i.scope === line.scope);
  return outcome.lines.filter((l) => feeds(l) && l !== line);
}
