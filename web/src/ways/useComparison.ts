// How the lowest ways differ, and what amounts cost: asked for when it is shown.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Comparison } from "../api/types";
import { useDesk } from "../desk/useDesk";

/** What is known at once; the rest as soon as it is here, of the revision before until then where nothing else is known. */
export function useComparison(wanted = true): Comparison {
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
  return asked.data ?? { compared: [], ways, decisions };
}
