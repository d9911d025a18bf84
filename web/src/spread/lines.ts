// Reading the trail: the lines behind a place, which boxes feed them, and what they feed.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Line, LineInput } from "../api/types";
import { useDesk } from "../desk/useDesk";

export type BoxInput = Extract<LineInput, { from: "box" }>;

type Place = { line: string; scopes: string; way?: string };

function trailOf(id: string, revision: number, query: Place) {
  return {
    queryKey: ["trail", id, revision, query.line, query.scopes, query.way],
    queryFn: () =>
      ask(
        api.GET("/api/households/{id}/revisions/{revision}/trail", {
          params: { path: { id, revision }, query },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  };
}

/**
 * The lines of a place, what they are made from and what they feed. Until they are here, what was asked for before stands
 * for them where it holds the place: another revision's, or those of the line beside that led here.
 */
export function useTrail(place: Place) {
  const { opened } = useDesk();
  return useQuery({
    ...trailOf(opened.id, opened.revision, place),
    placeholderData: (before, query) =>
      before && query?.queryKey[1] === opened.id && linesAt(before, place.line, place.scopes).length > 0
        ? before
        : undefined,
  });
}

/** Asks for the first box behind a place. */
export function useFirstBox() {
  const { opened } = useDesk();
  const queries = useQueryClient();
  return async (place: Place) => {
    const lines = await queries.fetchQuery(trailOf(opened.id, opened.revision, place));
    return boxesBehind(lines, linesAt(lines, place.line, place.scopes))[0];
  };
}

export function linesAt(lines: Line[], line: string, scopes: string): Line[] {
  const wanted = scopes.split(",");
  return lines.filter((l) => l.id === line && wanted.includes(l.scope));
}

/** The boxes behind some lines, at most `depth` lines away; parts of one box are added up. */
export function boxesBehind(all: Line[], lines: Line[], depth = 2): BoxInput[] {
  const found = new Map<string, BoxInput>();
  const seen = new Set<Line>();
  const visit = (line: Line, left: number) => {
    if (seen.has(line)) return;
    seen.add(line);
    for (const input of line.inputs ?? []) {
      if (input.from === "box") add(found, input);
      if (input.from === "line" && left > 0) {
        for (const next of linesAt(all, input.id, input.scope)) visit(next, left - 1);
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
export function fedBy(all: Line[], line: Line): Line[] {
  const feeds = (l: Line) =>
    (l.inputs ?? []).some((i) => i.from === "line" && i.id === line.id && i.scope === line.scope);
  return all.filter((l) => feeds(l) && l !== line);
}
