// How the lowest ways differ, and the curves of amounts: asked for when Ways is open.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { useDesk } from "../desk/useDesk";

/** Of the revision before until the new one is here. */
export function useComparison() {
  const { opened } = useDesk();
  const path = { id: opened.id, revision: opened.revision };
  const asked = useQuery({
    queryKey: ["comparison", opened.id, opened.revision],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/revisions/{revision}/ways", { params: { path }, signal })),
    placeholderData: (before, query) => (query?.queryKey[1] === opened.id ? before : undefined),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return asked.data;
}
