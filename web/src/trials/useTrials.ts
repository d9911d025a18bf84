// Trials of a household: its list, one beside its return, and what is tried next.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { NewTrial, QuickMove } from "../api/types";
import { useDesk, words } from "../desk/useDesk";

/** The household that trials are of: of a trial its return. */
export function useReturnId() {
  const { opened } = useDesk();
  return opened.trial?.of ?? opened.id;
}

/** The trials of a household, the oldest first, those thrown away too. */
export function useTrials() {
  const id = useReturnId();
  const { opened } = useDesk();
  return useQuery({
    queryKey: ["trials", id, opened.id, opened.revision],
    queryFn: () => ask(api.GET("/api/households/{id}/trials", { params: { path: { id } } })),
  });
}

/** The trial that is open, beside its return. */
export function useTrial() {
  const { opened } = useDesk();
  return useQuery({
    queryKey: ["trial", opened.id, opened.revision],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/trial", { params: { path: { id: opened.id } }, signal })),
    placeholderData: (before) => before,
  });
}

/** Opens a household: a trial or its return. */
export function useOpening() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  return (id: string) => {
    void queries.invalidateQueries({ queryKey: ["trials"] });
    void queries.invalidateQueries({ queryKey: ["trial"] });
    void navigate({ to: "/h/$id/spread", params: { id }, search: {} });
  };
}

/** Begins trials and makes quick moves, with what was refused last. */
export function useTrying() {
  const { opened, change } = useDesk();
  const id = useReturnId();
  const open = useOpening();
  const [refused, setRefused] = useState<string | null>(null);
  const begin = async (body: NewTrial) => {
    // What was typed last is stored first; of an earlier revision there are no trials.
    const wrong = await change((now) => Promise.resolve(now));
    if (wrong) return setRefused(words(wrong));
    try {
      const made = await ask(api.POST("/api/households/{id}/trials", { params: { path: { id } }, body }));
      setRefused(null);
      open(made.id);
    } catch (error) {
      setRefused((error as Refusal).message);
    }
  };
  /** In a trial the next step of it, else the first of a new one. */
  const quick = async (move: QuickMove, name: string) => {
    if (!opened.trial) return begin({ name, quick: move });
    const path = { params: { path: { id: opened.id } } };
    const send = (now: { revision: number }) =>
      ask(
        api.POST("/api/households/{id}/trial/move", {
          ...path,
          body: { base_revision: now.revision, quick: move },
        }),
      );
    setRefused(words(await change(send)));
  };
  return { begin, quick, refused };
}
