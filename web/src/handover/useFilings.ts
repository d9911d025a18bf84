// What filing needs, and what was filed.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { FilingView } from "../api/types";

export function useFilings(id: string, revision: number) {
  return useQuery({
    queryKey: ["filings", id, revision],
    queryFn: () => ask(api.GET("/api/households/{id}/filings", { params: { path: { id } } })),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
}

/** Filing, asking what became of it, and sending what is asked for. */
export function useFiling(id: string, revision: number) {
  const queries = useQueryClient();
  const again = () => {
    void queries.invalidateQueries({ queryKey: ["progress", id] });
    void queries.invalidateQueries({ queryKey: ["households"] });
  };
  const kept = {
    onSuccess: (view: FilingView) => {
      queries.setQueryData(["filings", id, revision], view);
      again();
    },
    onError: () => {
      void queries.invalidateQueries({ queryKey: ["filings", id] });
      again();
    },
  };
  const file = useMutation({
    mutationFn: () => {
      const body = { base_revision: revision };
      return ask(api.POST("/api/households/{id}/filings", { params: { path: { id } }, body }));
    },
    ...kept,
  });
  const look = useMutation({
    mutationFn: (filing: string) =>
      ask(api.POST("/api/households/{id}/filings/{filing}", { params: { path: { id, filing } } })),
    ...kept,
  });
  const send = useMutation({
    mutationFn: ({
      filing,
      ...body
    }: {
      filing: string;
      document: string;
      words: string;
      files: string[];
    }) => {
      const path = { params: { path: { id, filing } } };
      return ask(api.POST("/api/households/{id}/filings/{filing}/documents", { ...path, body }));
    },
    ...kept,
  });
  const all = [file, look, send];
  return {
    file,
    look,
    send,
    busy: all.some((one) => one.isPending),
    error: all.find((one) => one.error)?.error ?? null,
  };
}
