// The notes of the practice on a household: threads, the oldest first.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Note, NotePlace } from "../api/types";
import { useDesk } from "../desk/useDesk";

/** How often a colleague's notes are looked for. */
const LOOK = 5_000;

export function useNotes() {
  const { opened } = useDesk();
  const path = { params: { path: { id: opened.id } } };
  return useQuery({
    queryKey: ["notes", opened.id],
    queryFn: () => ask(api.GET("/api/households/{id}/notes", path)),
    refetchInterval: LOOK,
  });
}

export type NewNote = { place: NotePlace; about: string; words: string; answers?: string };

export function useNoting() {
  const { opened } = useDesk();
  const queries = useQueryClient();
  const { id } = opened;
  const kept = { onSuccess: (notes: Note[]) => queries.setQueryData(["notes", id], notes) };
  const add = useMutation({
    mutationFn: (body: NewNote) =>
      ask(api.POST("/api/households/{id}/notes", { params: { path: { id } }, body })),
    ...kept,
  });
  const change = useMutation({
    mutationFn: ({ note, ...body }: { note: string; settled?: boolean; removed?: boolean }) =>
      ask(api.POST("/api/households/{id}/notes/{note}", { params: { path: { id, note } }, body })),
    ...kept,
  });
  return { add, change };
}

/** A note with its answers. */
export type Thread = { first: Note; answers: Note[] };

export function threadsOf(notes: Note[]): Thread[] {
  const firsts = notes.filter((note) => !notes.some((other) => other.id === note.answers));
  return firsts.map((first) => ({ first, answers: notes.filter((note) => note.answers === first.id) }));
}

/** Whether a note stands at a place: on it, or on something of it. */
export function isAt(note: Note, place: NotePlace): boolean {
  const keys = Object.keys(place) as (keyof NotePlace)[];
  return keys.every((key) => place[key] === undefined || note.place[key] === place[key]);
}
