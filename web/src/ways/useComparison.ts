// How the lowest ways differ, and what amounts cost: asked for when it is shown.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { NamedWay, WaysOpened } from "../api/types";
import { useDesk } from "../desk/useDesk";

/** What is known at once; the rest as soon as it is here, of the revision before until then where nothing else is known. */
export function useComparison(wanted = true): WaysOpened {
  const { opened } = useDesk();
  const path = { id: opened.id, revision: opened.revision };
  const asked = useQuery({
    queryKey: ["comparison", opened.id, opened.revision],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/revisions/{revision}/ways", { params: { path }, signal })),
    enabled: wanted,
    placeholderData: (before, query) =>
      before && query?.queryKey[1] === opened.id
        ? { ...before, ways: opened.outcome.ways, decisions: opened.outcome.decisions }
        : undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const { ways, decisions } = opened.outcome;
  return asked.data ?? { compared: { ways: [], rows: [], why: [] }, ways, decisions };
}

/** Ways that come to the same: the first of them, its rank, and all. */
export type Tie = { first: NamedWay; rank: number; ways: NamedWay[] };

/** Ways with the same total stand once. */
export function ties(ways: NamedWay[]): Tie[] {
  const found: Tie[] = [];
  ways.forEach((way, i) => {
    const last = found.at(-1);
    if (last?.first.total === way.total) last.ways.push(way);
    else found.push({ first: way, rank: i + 1, ways: [way] });
  });
  return found;
}

/** A way by its difference from the lowest; that by its own choices. */
export function named(way: NamedWay): string {
  return way.but || way.name;
}
