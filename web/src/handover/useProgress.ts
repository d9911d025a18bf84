// Where a return stands in the practice's hands.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Stage } from "../api/types";

/** A change of the household may move it, so it is asked for by revision. */
export function useProgress(id: string, revision: number) {
  return useQuery({
    queryKey: ["progress", id, revision],
    queryFn: () => ask(api.GET("/api/households/{id}/progress", { params: { path: { id } } })),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
}

export type Hands = { worked_by: string | null; reviewer: string | null; held_until: string | null };

/** Steps from one state to the next, and whose hands it is in. */
export function useMoving(id: string, revision: number) {
  const queries = useQueryClient();
  const path = { params: { path: { id } } };
  const kept = {
    onSuccess: (progress: unknown) => {
      queries.setQueryData(["progress", id, revision], progress);
      void queries.invalidateQueries({ queryKey: ["households"] });
    },
    // Somebody moved or changed it meanwhile: what is shown is asked for again.
    onError: () => void queries.invalidateQueries({ queryKey: ["progress", id] }),
  };
  const step = useMutation({
    mutationFn: ({ from, to, words }: { from: Stage; to: Stage; words: string }) => {
      const body = { base_revision: revision, from, to, words };
      return ask(api.POST("/api/households/{id}/progress", { ...path, body }));
    },
    ...kept,
  });
  const back = useMutation({
    mutationFn: () => ask(api.DELETE("/api/households/{id}/progress", path)),
    ...kept,
  });
  const hands = useMutation({
    mutationFn: (body: Hands) => ask(api.PUT("/api/households/{id}/hands", { ...path, body })),
    ...kept,
  });
  return { step, back, hands, error: step.error ?? back.error ?? hands.error };
}
