// The letter to the family: its newest version, the figures as they are now, and the templates.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { LetterBody, LetterLanguage, LetterOpened } from "../api/types";

export function useLetter(id: string, revision: number) {
  return useQuery({
    queryKey: ["letter", id, revision],
    queryFn: () => ask(api.GET("/api/households/{id}/letter", { params: { path: { id } } })),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
}

export function useLetterChanges(id: string, revision: number) {
  const queries = useQueryClient();
  const params = { path: { id } };
  const kept = {
    onSuccess: (letter: LetterOpened) => {
      queries.setQueryData(["letter", id, revision], letter);
      void queries.invalidateQueries({ queryKey: ["pack-part", id] });
    },
  };
  const make = useMutation({
    mutationFn: (body: { template: string; base_version: number }) =>
      ask(api.POST("/api/households/{id}/letter", { params, body })),
    ...kept,
  });
  const keep = useMutation({
    mutationFn: (body: { base_version: number; revision: number; body: LetterBody }) =>
      // A page that goes away still sends it; a large body cannot be sent so.
      ask(
        api.PUT("/api/households/{id}/letter", {
          params,
          body: body as never,
          keepalive: JSON.stringify(body).length < 50_000,
        }),
      ),
    ...kept,
  });
  const again = () => queries.invalidateQueries({ queryKey: ["letter", id] });
  const template = useMutation({
    mutationFn: (body: { name: string; body: string; language: LetterLanguage }) =>
      ask(api.PUT("/api/letter-templates", { body: { ...body, try_with: id } })),
    onSuccess: again,
  });
  const drop = useMutation({
    mutationFn: (template: string) =>
      ask(api.DELETE("/api/letter-templates/{template}", { params: { path: { template } } })),
    onSuccess: again,
  });
  /** The newest version, whoever kept it. */
  const newest = async () => {
    const now = await ask(api.GET("/api/households/{id}/letter", { params }));
    return now.letter?.version ?? 0;
  };
  return { make, keep, template, drop, again, newest };
}
