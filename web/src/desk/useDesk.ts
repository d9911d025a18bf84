// The open household: one edit after the other against the newest revision, undo, redo, and what went wrong.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useRef, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { Command, Opened, PackInfo, Problem } from "../api/types";

/** Commands, or what makes them from the household as it stands when their turn comes. */
export type Edit = Command[] | ((now: Opened) => Command[]);

export type Desk = {
  opened: Opened;
  pack: PackInfo;
  saving: boolean;
  /** Stores an edit; the answer is what is wrong with it, or nothing. */
  edit: (edit: Edit) => Promise<string | null>;
  undo: () => void;
  redo: () => void;
  problem: Problem | null;
  clearProblem: () => void;
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

type Send = (now: Opened) => Promise<Opened> | null;

export function useEdits(id: string) {
  const queries = useQueryClient();
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const [waiting, setWaiting] = useState(0);
  const [problem, setProblem] = useState<Problem | null>(null);
  const key = ["household", id];

  const inTurn = useCallback(
    (send: Send): Promise<string | null> => {
      const run = async () => {
        const now = queries.getQueryData<Opened>(["household", id]);
        const sent = now && send(now);
        if (!sent) return null;
        try {
          queries.setQueryData(["household", id], await sent);
          setProblem(null);
          return null;
        } catch (error) {
          const refusal = error as Refusal;
          if (refusal.problem.status !== 422) setProblem(refusal.problem);
          if (refusal.problem.status === 409)
            await queries.invalidateQueries({ queryKey: ["household", id] });
          return refusal.message;
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
  const edit = (edit: Edit) =>
    inTurn((now) => {
      const commands = typeof edit === "function" ? edit(now) : edit;
      const body = { base_revision: now.revision, commands };
      return ask(api.POST("/api/households/{id}/edits", { ...path, body }));
    });
  const from = (now: Opened) => ({ ...path, body: { base_revision: now.revision } });
  return {
    edit,
    undo: () =>
      void inTurn((now) =>
        now.can_undo ? ask(api.POST("/api/households/{id}/undo", from(now))) : Promise.resolve(now),
      ),
    redo: () =>
      void inTurn((now) =>
        now.can_redo ? ask(api.POST("/api/households/{id}/redo", from(now))) : Promise.resolve(now),
      ),
    saving: waiting > 0,
    problem,
    clearProblem: () => setProblem(null),
    key,
  };
}
