// What the authority and the payers hold of a household: consent, fetching, and what becomes of each offered slip.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Offered, OutsideView } from "../api/types";
import { useDesk } from "../desk/useDesk";

/** It stands to what was keyed, so it is asked for by revision. */
export function useOutside() {
  const { opened } = useDesk();
  const { id, revision } = opened;
  return useQuery({
    queryKey: ["outside", id, revision],
    queryFn: () => ask(api.GET("/api/households/{id}/outside", { params: { path: { id } } })),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
}

export type AskConsent = { people: string[]; scope: string[]; until: string };

/** What is asked of the authority. */
export function useAsking() {
  const { opened } = useDesk();
  const { id, revision } = opened;
  const queries = useQueryClient();
  const path = { params: { path: { id } } };
  const kept = {
    onSuccess: (view: OutsideView) => queries.setQueryData(["outside", id, revision], view),
    onError: () => void queries.invalidateQueries({ queryKey: ["outside", id] }),
  };
  const consent = useMutation({
    mutationFn: (body: AskConsent) => ask(api.POST("/api/households/{id}/consents", { ...path, body })),
    ...kept,
  });
  const one = (consent: string) => ({ params: { path: { id, consent } } });
  const look = useMutation({
    mutationFn: (consent: string) => ask(api.POST("/api/households/{id}/consents/{consent}", one(consent))),
    ...kept,
  });
  const end = useMutation({
    mutationFn: (consent: string) => ask(api.DELETE("/api/households/{id}/consents/{consent}", one(consent))),
    ...kept,
  });
  const fetch = useMutation({
    mutationFn: () => ask(api.POST("/api/households/{id}/fetches", path)),
    ...kept,
  });
  const asked = useMutation({
    mutationFn: (body: { kind: string; asked: boolean }) =>
      ask(api.PUT("/api/households/{id}/asked", { ...path, body })),
    ...kept,
  });
  const all = [consent, look, end, fetch, asked];
  return {
    consent,
    look,
    end,
    fetch,
    asked,
    busy: all.some((one) => one.isPending),
    error: all.find((one) => one.error)?.error ?? null,
  };
}

export type Settling = "take" | "keep" | "refuse" | "take_up";

/** What becomes of slips, as an edit that can be undone. */
export function useSettling() {
  const { opened, change } = useDesk();
  return (slips: string[], how: Settling, reason = "") => {
    const key = crypto.randomUUID();
    return change((now) => {
      const body = { base_revision: now.revision, key, slips, how, reason };
      return ask(api.POST("/api/households/{id}/offered", { params: { path: { id: opened.id } }, body }));
    });
  };
}

/** What taking a slip would do. */
export function useIfTaken(slip: string, wanted: boolean) {
  const { opened } = useDesk();
  const { id, revision } = opened;
  return useQuery({
    queryKey: ["if-taken", id, revision, slip],
    queryFn: ({ signal }) =>
      ask(
        api.GET("/api/households/{id}/offered/effect", {
          params: { path: { id }, query: { slip } },
          signal,
        }),
      ),
    enabled: wanted,
  });
}

const FIRST: Offered["state"][] = ["differs", "new", "agrees"];

/** The slips on which something is left to decide: those first that say something else. */
export function toDecide(offered: Offered[]) {
  const open = offered.filter((one) => !one.settled && FIRST.includes(one.state));
  return open.sort((a, b) => FIRST.indexOf(a.state) - FIRST.indexOf(b.state));
}
