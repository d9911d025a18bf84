// The open household: one edit after the other against the newest revision, undo, redo, and what went wrong.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useEffect, useRef, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { Command, Conflict, HistoryEntry, Opened, PackInfo, Problem } from "../api/types";
import { useWho } from "../signin/SignInGate";
import { left, put, take } from "./outbox";

/** Commands, or what makes them from the household as it stands when their turn comes. */
export type Edit = Command[] | ((now: Opened) => Command[]);

/** An edit that touches what someone else set to something else meanwhile: both values, and storing it all the same. */
export type Clash = { conflicts: Conflict[]; changed: string[]; again: () => Promise<Refused> };

/** What is wrong with an edit, or nothing. */
export type Refused = string | Clash | null;

/** How an edit is made. */
export type How = {
  /** The revision against which it is made; the newest where neither this nor its typing says so. */
  base?: number;
  /** The typing that it is a part of. */
  typing?: Typing;
  /** Its text is a secret: it is not kept in the browser. */
  secret?: boolean;
};

/** Typing in one box, of which several parts may be kept: undo takes all of them back. Read when a part is sent. */
export type Typing = {
  /** The revision at which it began, or that its last part made. */
  base?: number;
  /** The revision that its last part made. */
  made?: number;
};

export function words(refused: Refused): string | null {
  return refused && typeof refused !== "string" ? "This was changed meanwhile." : refused;
}

export type Desk = {
  opened: Opened;
  pack: PackInfo;
  /** An earlier revision is looked at: nothing can be changed. */
  past: boolean;
  saving: boolean;
  /** The server does not answer: what is on its way is sent again and again. */
  unanswered: boolean;
  /** Stores an edit; the answer is what is wrong with it, or nothing. */
  edit: (edit: Edit, how?: How) => Promise<Refused>;
  /** Makes a change that is not told in commands; the answer is what is wrong with it, or nothing. */
  change: (send: (now: Opened) => Promise<Opened>) => Promise<Refused>;
  /** What an undo, a redo or another window just did, in words. */
  notice: string | null;
  say: (words: string) => void;
  clearNotice: () => void;
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
  const queries = useQueryClient();
  return useQuery({
    queryKey: ["household", id],
    queryFn: async () => {
      const looked = await ask(api.GET("/api/households/{id}", { params: { path: { id } } }));
      // An edit that was answered while this was on its way is not forgotten again.
      const now = queries.getQueryData<Opened>(["household", id]);
      return now && now.revision > looked.revision ? now : looked;
    },
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

type Send = (now: Opened) => Promise<Opened>;

type Then = {
  again?: () => Promise<Refused>;
  done?: (opened: Opened) => void;
  refused?: (problem: Problem) => void;
};

/** How long to wait before an edit that nobody answered is sent again. */
const AGAIN = 2_000;

/** Waits a little, or until the connection is back. */
function aWhile() {
  return new Promise<void>((go) => {
    const timer = setTimeout(done, AGAIN);
    function done() {
      clearTimeout(timer);
      window.removeEventListener("online", done);
      go();
    }
    window.addEventListener("online", done);
  });
}

/** Whether nobody answered, or nobody had the time to. */
function isUnanswered(problem: Problem) {
  return problem.status === 0 || problem.status === 502 || problem.status === 503 || problem.status === 504;
}

/** A revision of a household, as it is remembered. */
const nameOf = (id: string, revision: number) => `${id}@${revision}`;

export function useEdits(id: string) {
  const queries = useQueryClient();
  const { data: who } = useWho();
  const by = who?.name ?? "";
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  // The revisions made from here: who types on saw them, also where their answers came later.
  const own = useRef(new Set<string>());
  const [waiting, setWaiting] = useState(0);
  const [unanswered, setUnanswered] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [clash, setClash] = useState<Clash | null>(null);
  const [notice, setNotice] = useState<string | null>(null);

  /** Sends until somebody answers. */
  const answered = useCallback(async (send: Send, now: Opened): Promise<Opened> => {
    for (;;) {
      try {
        const opened = await send(now);
        setUnanswered(false);
        return opened;
      } catch (error) {
        const { problem } = error as Refusal;
        if (!isUnanswered(problem)) {
          setUnanswered(false);
          throw error;
        }
        setUnanswered(true);
        await aWhile();
      }
    }
  }, []);

  const inTurn = useCallback(
    (send: Send, more: Then = {}) => {
      const run = async (): Promise<Refused> => {
        const now = queries.getQueryData<Opened>(["household", id]);
        try {
          if (!now) return null;
          const opened = await answered(send, now);
          if (opened.did.length > 0) own.current.add(nameOf(id, opened.revision));
          queries.setQueryData(["household", id], opened);
          more.done?.(opened);
          setProblem(null);
          setClash(null);
          return null;
        } catch (error) {
          const { problem, message } = error as Refusal;
          more.refused?.(problem);
          if (problem.status === 409) await queries.invalidateQueries({ queryKey: ["household", id] });
          if (problem.conflicts?.length && more.again) {
            const clash = { conflicts: problem.conflicts, changed: problem.changed ?? [], again: more.again };
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
    [answered, id, queries],
  );

  const path = { params: { path: { id } } };
  const store = (edit: Edit, how: How = {}, key: string = crypto.randomUUID()): Promise<Refused> => {
    const seen = (from: number) => {
      let revision = from;
      while (own.current.has(nameOf(id, revision + 1))) revision += 1;
      return revision;
    };
    const made = (now: Opened) => ({
      base_revision: seen(how.base ?? how.typing?.base ?? now.revision),
      commands: typeof edit === "function" ? edit(now) : edit,
      continues: how.typing?.made,
      key,
    });
    const keepHere = (now: Opened | undefined) => {
      if (!now || how.secret) return;
      const { base_revision, commands } = made(now);
      put({ key, household: id, by, base: base_revision, commands });
    };
    keepHere(queries.getQueryData<Opened>(["household", id]));
    setNotice(null);
    return inTurn(
      (now) => {
        keepHere(now);
        const body = made(now);
        // A page that goes away still sends it; a large body cannot be sent so.
        const keepalive = JSON.stringify(body).length < 50_000;
        return ask(api.POST("/api/households/{id}/edits", { ...path, body, keepalive }));
      },
      {
        again: () => store(edit, { secret: how.secret }),
        done: ({ revision }) => {
          take(key);
          if (how.typing) Object.assign(how.typing, { base: revision, made: revision });
        },
        // Who is signed out signs in again, and it is sent then.
        refused: ({ status }) => status !== 401 && take(key),
      },
    );
  };

  // What an earlier page left unacknowledged is sent by this one.
  const opened = queries.getQueryData<Opened>(["household", id]) !== undefined;
  const resend = useRef(store);
  resend.current = store;
  useEffect(() => {
    if (!opened || !by) return;
    for (const { key, base, commands } of left(id, by)) {
      void resend.current(commands, { base }, key).then((refused) => {
        if (typeof refused === "string") {
          const detail = `${refused} What you typed before this page was opened was not stored.`;
          setProblem({ type: "urn:hembo:left", title: "Not stored", status: 422, detail });
        }
      });
    }
  }, [by, id, opened]);

  const from = (now: Opened) => ({ ...path, body: { base_revision: now.revision } });
  const told = (word: string) => ({
    done: ({ did }: Opened) => did.length > 0 && setNotice(`${word}: ${did.join(" · ")}`),
  });
  return {
    edit: store,
    change: (send: Send) => inTurn(send),
    undo: () =>
      void inTurn(
        (now) =>
          now.can_undo ? ask(api.POST("/api/households/{id}/undo", from(now))) : Promise.resolve(now),
        told("Undone"),
      ),
    redo: () =>
      void inTurn(
        (now) =>
          now.can_redo ? ask(api.POST("/api/households/{id}/redo", from(now))) : Promise.resolve(now),
        told("Made again"),
      ),
    bringBack: (revision: number) =>
      inTurn((now) => {
        const body = { base_revision: now.revision, revision };
        return ask(api.POST("/api/households/{id}/bring-back", { ...path, body }));
      }),
    saving: waiting > 0,
    unanswered,
    problem,
    clearProblem: () => setProblem(null),
    clash,
    clearClash: () => setClash(null),
    notice,
    say: setNotice,
    clearNotice: () => setNotice(null),
  };
}

/** How often another window's changes are looked for. */
const LOOK = 3_000;

/** Another window's change appears by itself, and is told. */
export function useOthers(id: string, revision: number | undefined, edits: ReturnType<typeof useEdits>) {
  const queries = useQueryClient();
  const { data: who } = useWho();
  const since = useQuery({
    queryKey: ["since", id, revision],
    queryFn: () => {
      const path = { id, revision: revision ?? 0 };
      return ask(api.GET("/api/households/{id}/revisions/{revision}/since", { params: { path } }));
    },
    enabled: revision !== undefined,
    refetchInterval: LOOK,
    retry: false,
  });
  const entries = since.data;
  const { saving, say } = edits;
  const tell = useRef(say);
  tell.current = say;
  useEffect(() => {
    // What is on its way from here is no other window's.
    if (!entries?.length || saving) return;
    const now = queries.getQueryData<Opened>(["household", id])?.revision ?? 0;
    const later = entries.filter((e) => (e.revision ?? 0) > now);
    if (later.length === 0) return;
    void queries.invalidateQueries({ queryKey: ["household", id] });
    tell.current(toldBy(later, who?.name));
  }, [entries, id, queries, saving, who?.name]);
}

function toldBy(entries: HistoryEntry[], me: string | undefined) {
  const people = [...new Set(entries.map((e) => (e.by === me ? "You, in another window" : e.by)))];
  const what = entries.flatMap((e) => e.what);
  return `${people.join(", ")}: ${what.slice(0, 3).join(" · ")}${what.length > 3 ? ` and ${what.length - 3} more` : ""}`;
}
