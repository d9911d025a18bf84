// The open household: one edit after the other against the newest revision, undo, redo, and what went wrong.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useRef, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { Command, Conflict, Opened, PackInfo, Problem } from "../api/types";

/** Commands, or what makes them from the household as it stands when their turn comes. */
export type Edit = Command[] | ((now: Opened) => Command[]);

/** An edit that touches what someone else set to something else meanwhile: both values, and storing it all the same. */
export type Clash = { conflicts: Conflict[]; changed: string[]; again: () => Promise<Refused> };

/** What is wrong with an edit, or nothing. */
export type Refused = string | Clash | null;

export function words(refused: Refused): string | null {
  return refused && typeof refused !== "string" ? "This was changed meanwhile." : refused;
}

export type Desk = {
  opened: Opened;
  pack: PackInfo;
  /** An earlier revision is looked at: nothing can be changed. */
  past: boolean;
  saving: boolean;
  /** Stores an edit; the answer is what is wrong with it, or nothing. */
  edit: (edit: Edit) => Promise<Refused>;
  undo: () => void;
  redo: () => void;
  problem: Problem | null;
  clearProblem: () => void;
  clash: Clash | null;
  clearClash: () => void;
};

export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error("outside the desk");
  return desk;
}

export function useOpened(id: string) {
  return useQuery({
    queryKey: ["household", id],
    queryFn: () => ask(api.GET("/api/households/{id}", { params: { path: { id } } })),
  });
}

/** The household as it was in a revision. */
export function useRevision(id: string, revision: number | undefined) {
  const path = { id, revision: revision ?? 0 };
  return useQuery({
    queryKey: ["revision", id, revision],
    queryFn: () => ask(api.GET("/api/households/{id}/revisions/{revision}", { params: { path } })),
    enabled: revision !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

type Send = (now: Opened) => Promise<Opened> | null;

export function useEdits(id: string) {
  const queries = useQueryClient();
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const [waiting, setWaiting] = useState(0);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [clash, setClash] = useState<Clash | null>(null);

  const inTurn = useCallback(
    (send: Send, again?: () => Promise<Refused>): Promise<Refused> => {
      const run = async (): Promise<Refused> => {
        const now = queries.getQueryData<Opened>(["household", id]);
        const sent = now && send(now);
        if (!sent) return null;
        try {
          queries.setQueryData(["household", id], await sent);
          setProblem(null);
          setClash(null);
          return null;
        } catch (error) {
          const { problem, message } = error as Refusal;
          if (problem.status === 409) await queries.invalidateQueries({ queryKey: ["household", id] });
          if (problem.conflicts?.length && again) {
            const clash = { conflicts: problem.conflicts, changed: problem.changed ?? [], again };
            setClash(clash);
            return clash;
          }
          if (problem.status !== 422) setProblem(problem);
          return message;
        } finally {
          setWaiting((n) => n - 1);
        }
      };
      setWaiting((n) => n + 1);
      const done = queue.current.then(run);
      queue.current = done;
      return done;
    },
    [id, queries],
  );

  const path = { params: { path: { id } } };
  const store = (edit: Edit): Promise<Refused> =>
    inTurn(
      (now) => {
        const commands = typeof edit === "function" ? edit(now) : edit;
        const body = { base_revision: now.revision, commands };
        return ask(api.POST("/api/households/{id}/edits", { ...path, body }));
      },
      () => store(edit),
    );
  const from = (now: Opened) => ({ ...path, body: { base_revision: now.revision } });
  return {
    edit: store,
    undo: () =>
      void inTurn((now) =>
        now.can_undo ? ask(api.POST("/api/households/{id}/undo", from(now))) : Promise.resolve(now),
      ),
    redo: () =>
      void inTurn((now) =>
        now.can_redo ? ask(api.POST("/api/households/{id}/redo", from(now))) : Promise.resolve(now),
      ),
    bringBack: (revision: number) =>
      inTurn((now) => {
        const body = { base_revision: now.revision, revision };
        return ask(api.POST("/api/households/{id}/bring-back", { ...path, body }));
      }),
    saving: waiting > 0,
    problem,
    clearProblem: () => setProblem(null),
    clash,
    clearClash: () => setClash(null),
  };
}
