// Threads of notes, and the box in which one is begun or answered.
import { useRef, useState } from "react";
import type { Note, NotePlace } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { touched } from "../ui/format";
import { Button } from "../ui/pieces";
import { type Thread, useNoting } from "./useNotes";

type ThreadsProps = { threads: Thread[]; head?: (note: Note) => React.ReactNode };

export function Threads({ threads, head }: ThreadsProps) {
  return (
    <ul>
      {threads.map((thread) => (
        <li key={thread.first.id} className="row-line py-1.5">
          {head?.(thread.first)}
          <OneThread thread={thread} />
        </li>
      ))}
    </ul>
  );
}

function OneThread({ thread: { first, answers } }: { thread: Thread }) {
  const [answering, setAnswering] = useState(false);
  const { change } = useNoting();
  const settled = Boolean(first.settled_by);
  return (
    <>
      <Said note={first} />
      {answers.map((note) => (
        <div key={note.id} className="ml-3 border-l-2 border-rule pl-2">
          <Said note={note} />
        </div>
      ))}
      {first.settled_by && first.settled_at && (
        <p className="text-[12px] text-soft">
          Settled by {first.settled_by}, {touched(first.settled_at)}
        </p>
      )}
      <span className="flex gap-2">
        {!settled && (
          <Button tone="quiet" onClick={() => setAnswering(true)}>
            Answer
          </Button>
        )}
        <Button tone="quiet" onClick={() => change.mutate({ note: first.id, settled: !settled })}>
          {settled ? "Open again" : "Settle"}
        </Button>
      </span>
      {answering && (
        <Writing
          place={first.place}
          about={first.about}
          answers={first.id}
          done={() => setAnswering(false)}
          atOnce
        />
      )}
    </>
  );
}

function Said({ note }: { note: Note }) {
  const { change } = useNoting();
  return (
    <p className="whitespace-pre-line">
      <span className="text-soft">
        {note.by}, {touched(note.at)}:{" "}
      </span>
      {note.words}
      {note.own && (
        <Button
          tone="quiet"
          className="text-[12px]"
          aria-label={`Remove the note “${note.words.slice(0, 40)}”`}
          onClick={() => change.mutate({ note: note.id, removed: true })}
        >
          Remove
        </Button>
      )}
    </p>
  );
}

type WritingProps = {
  place: NotePlace;
  about: string;
  answers?: string;
  done?: () => void;
  atOnce?: boolean;
};

/** Enter keeps a note, Shift with it begins a new line. */
export function Writing({ place, about, answers, done, atOnce }: WritingProps) {
  const { add, change } = useNoting();
  const { opened } = useDesk();
  const box = useRef<HTMLTextAreaElement>(null);
  // What was typed and not kept yet waits here until one comes back.
  const draft = `hembo.note ${opened.id} ${JSON.stringify(place)} ${answers ?? ""}`;
  const keep = () => {
    const words = box.current?.value.trim();
    if (!words || add.isPending) return;
    add.mutate(
      { place, about, words, answers },
      {
        onSuccess: () => {
          if (box.current) box.current.value = "";
          sessionStorage.removeItem(draft);
          done?.();
        },
      },
    );
  };
  const failed = add.error ?? change.error;
  return (
    <form
      className="mt-1"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <textarea
        ref={(element) => {
          box.current = element;
          if (atOnce) element?.focus();
        }}
        data-note={answers ? undefined : true}
        aria-label={answers ? "Answer" : "Note for the practice"}
        placeholder={answers ? "Answer" : "Note for the practice"}
        className="box h-auto! py-1"
        rows={2}
        maxLength={4000}
        defaultValue={sessionStorage.getItem(draft) ?? ""}
        onChange={(event) => sessionStorage.setItem(draft, event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Escape") event.currentTarget.blur();
          if (event.key !== "Enter" || event.shiftKey) return;
          event.preventDefault();
          keep();
        }}
      />
      {failed && (
        <p role="alert" className="text-ochre">
          {failed.message}
        </p>
      )}
      <Button type="submit" tone="quiet" disabled={add.isPending}>
        Keep the note
      </Button>
    </form>
  );
}
