// How the lowest ways differ, and what amounts cost: asked for when it is shown.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Comparison, NamedWay, WaysOpened } from "../api/types";
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
  return asked.data ?? { compared: NOTHING, ways, decisions };
}

const NOTHING: Comparison = { ways: [], rows: [], later: [], less_later: [], why: [] };

/** Which ways stand beside the chosen one, as they are written; the next dearer ones where none is chosen. */
export type Shown = { ways: string[]; allRows: boolean };

/** What is shown, and how that changes. */
export type Choosing = { shown: Shown; choose: (next: Shown) => void };

/** How many may stand beside the chosen one. */
export const MOST_BESIDE = 3;

/** A way as it is asked for: what it takes of each decision. */
export function written(way: { options: Record<string, string> }): string {
  const taken = Object.entries(way.options).map(([decision, option]) => `${decision}=${option}`);
  return taken.join(",");
}

/** The ways that are to stand side by side. Without a choice they are those that are known at once. */
export function useBeside(shown: Shown): Comparison {
  const { opened } = useDesk();
  const { compared } = useComparison();
  const lowest = compared.ways.slice(1).map(written);
  const ways = (shown.ways.length > 0 ? shown.ways : lowest).join(";");
  const path = { id: opened.id, revision: opened.revision };
  const query = { ways, all_rows: shown.allRows };
  const params = { path, query };
  const url = "/api/households/{id}/revisions/{revision}/ways/beside";
  const isAsked = shown.ways.length > 0 || shown.allRows;
  const asked = useQuery({
    queryKey: ["beside", opened.id, opened.revision, ways, shown.allRows],
    queryFn: ({ signal }) => ask(api.GET(url, { params, signal })),
    enabled: isAsked,
    placeholderData: (before, asked) => (asked?.queryKey[1] === opened.id ? before : undefined),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (isAsked ? asked.data : undefined) ?? compared;
}

/** Ways that come to the same, or nearly: the first of them, its rank, and all. */
export type Tie = { first: NamedWay; rank: number; ways: NamedWay[] };

/** Ways with the same total, or one within so much of the first's, stand once. */
export function ties(ways: NamedWay[], within: number): Tie[] {
  const found: Tie[] = [];
  ways.forEach((way, i) => {
    const last = found.at(-1);
    if (last && Number(way.total) - Number(last.first.total) <= within) last.ways.push(way);
    else found.push({ first: way, rank: i + 1, ways: [way] });
  });
  return found;
}

/** A way by its difference from the lowest; that by its own choices. */
export function named(way: NamedWay): string {
  return way.but || way.name;
}
