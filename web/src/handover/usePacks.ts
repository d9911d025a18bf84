// The pack: its parts, the choices that are kept, what was made, and a part to look at.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { PackPart } from "../api/types";

export function usePackParts(id: string) {
  return useQuery({
    queryKey: ["packs-made", id],
    queryFn: () => ask(api.GET("/api/households/{id}/packs", { params: { path: { id } } })),
  });
}

/** A part as it would stand in the pack of this revision. */
export function usePart(id: string, revision: number, part: PackPart) {
  return useQuery({
    queryKey: ["pack-part", id, revision, part],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/pack-part", { params: { path: { id }, query: { part } }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useMaking(id: string, revision: number) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: ["packs-made", id] });
  const make = useMutation({
    mutationFn: (parts: PackPart[]) => {
      const body = { base_revision: revision, parts };
      return ask(api.POST("/api/households/{id}/packs", { params: { path: { id } }, body }));
    },
    onSuccess: (packs) => queries.setQueryData(["packs-made", id], packs),
    onError: () => void queries.invalidateQueries({ queryKey: ["household", id] }),
  });
  const keep = useMutation({
    mutationFn: (body: { name: string; parts: PackPart[] }) => ask(api.PUT("/api/pack-sets", { body })),
    onSuccess: again,
  });
  const drop = useMutation({
    mutationFn: (set: string) => ask(api.DELETE("/api/pack-sets/{set}", { params: { path: { set } } })),
    onSuccess: again,
  });
  return { make, keep, drop, error: make.error ?? keep.error ?? drop.error };
}
