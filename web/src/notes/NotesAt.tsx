// The notes on what one stands on, and a box for another one.
import type { NotePlace } from "../api/types";
import { Threads, Writing } from "./Threads";
import { isAt, threadsOf, useNotes } from "./useNotes";

type Props = { place: NotePlace; about: string };

export function NotesAt({ place, about }: Props) {
  const notes = useNotes().data ?? [];
  const threads = threadsOf(notes.filter((note) => isAt(note, place)));
  return (
    <section className="mt-4 border-t border-rule pt-2">
      <h2 className="mb-1">Notes</h2>
      <Threads threads={threads} />
      <Writing key={JSON.stringify(place)} place={place} about={about} />
    </section>
  );
}
