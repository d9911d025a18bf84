// All notes on the household: those that are open first, each leading to what it stands on.
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { Note } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count } from "../ui/format";
import { Sheet } from "../ui/Sheet";
import { Threads, Writing } from "./Threads";
import { threadsOf, useNotes } from "./useNotes";

export function AllNotes({ close }: { close: () => void }) {
  const { opened } = useDesk();
  const [settled, setSettled] = useState(false);
  const threads = threadsOf(useNotes().data ?? []);
  const open = threads.filter(({ first }) => !first.settled_by);
  const shown = settled ? threads : open;
  return (
    <Sheet
      title="Notes"
      about="For the practice alone: they go into a pack only where somebody chooses them."
      onClose={close}
    >
      {shown.length === 0 && <p className="text-soft">No note is open.</p>}
      <Threads threads={shown} head={(note) => <About note={note} id={opened.id} go={close} />} />
      {open.length < threads.length && (
        <label className="mt-2 flex items-center gap-2">
          <input type="checkbox" checked={settled} onChange={(event) => setSettled(event.target.checked)} />
          Show {count(threads.length - open.length, "settled one")}
        </label>
      )}
      <h3 className="mt-4">On the household as a whole</h3>
      <Writing place={{}} about={`${opened.household.name} household`} />
    </Sheet>
  );
}

/** Where a note stands. */
function About({ note, id, go }: { note: Note; id: string; go: () => void }) {
  const { paper, field, person, line, scope, point } = note.place;
  const shared = {
    params: { id },
    onClick: go,
    className: "font-semibold text-petrol underline underline-offset-2",
    children: note.about,
  };
  if (point) return <Link to="/h/$id/points" search={{}} {...shared} />;
  if (paper) return <Link to="/h/$id/papers" search={{ paper, field: field ?? undefined }} {...shared} />;
  if (line)
    return <Link to="/h/$id/spread" search={{ line, scopes: scope ?? undefined, trail: true }} {...shared} />;
  if (person) return <Link to="/h/$id/spread" search={{ person }} {...shared} />;
  return <b className="font-semibold">{note.about}</b>;
}
