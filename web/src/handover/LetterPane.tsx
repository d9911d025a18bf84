// The letter: made by a template, edited, taken away as DOCX or PDF; and the templates themselves.
import { useSearch } from "@tanstack/react-router";
import { lazy, Suspense, useState } from "react";
import type { LetterOpened } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { Blank, Button, Waiting } from "../ui/pieces";
import { Templates } from "./Templates";
import { useLetter, useLetterChanges } from "./useLetter";

const LetterEditor = lazy(() => import("./LetterEditor"));

export function LetterPane() {
  const { opened } = useDesk();
  const letter = useLetter(opened.id, opened.revision);
  if (letter.error) return <Blank title="The letter cannot be shown">{letter.error.message}</Blank>;
  if (!letter.data) return <Waiting what="Opening the letter…" />;
  return <Opened of={letter.data} />;
}

function Opened({ of }: { of: LetterOpened }) {
  const { opened, past } = useDesk();
  const [templates, setTemplates] = useState(false);
  const { letter } = useSearch({ from: "/h/$id" });
  const asks = letter && of.templates.find((one) => one.body.includes(letter));
  const [template, setTemplate] = useState((asks ?? of.templates[0])?.id ?? "");
  // A letter made anew is another one for the editor.
  const [made, setMade] = useState(0);
  const changes = useLetterChanges(opened.id, opened.revision);
  const file = `/api/households/${opened.id}/letter`;
  const link = "border border-rule bg-sheet px-3 py-1 hover:border-plum";
  const make = () =>
    changes.make.mutate(
      { template, base_version: of.letter?.version ?? 0 },
      { onSuccess: () => setMade((n) => n + 1) },
    );
  return (
    <div className="mx-auto max-w-[660px]">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <select
          aria-label="Template"
          className="box w-auto!"
          value={template}
          onChange={(event) => setTemplate(event.target.value)}
        >
          {of.templates.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
        <Button
          tone={of.letter ? "plain" : "main"}
          onClick={make}
          disabled={past || !template || changes.make.isPending}
        >
          {of.letter ? "Write it anew" : "Write the letter"}
        </Button>
        <Button tone="quiet" onClick={() => setTemplates(true)}>
          Templates…
        </Button>
        {of.letter && (
          <span className="ml-auto flex gap-2">
            <a className={link} href={`${file}.docx`} download={`${opened.household.name} letter.docx`}>
              DOCX
            </a>
            <a className={link} href={`${file}.pdf`} download={`${opened.household.name} letter.pdf`}>
              PDF
            </a>
          </span>
        )}
      </div>
      {changes.make.error && (
        <p role="alert" className="mb-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          {changes.make.error.message}
        </p>
      )}
      {of.letter ? (
        <Suspense fallback={<Waiting what="Opening the editor…" />}>
          <LetterEditor
            key={made}
            letter={of.letter}
            figures={of.figures}
            theirs={() => void changes.again().then(() => setMade((n) => n + 1))}
          />
        </Suspense>
      ) : (
        <p className="border border-rule bg-sheet px-10 py-9 text-soft">
          No letter yet. A template writes it from the figures of this return; then it is yours to edit.
        </p>
      )}
      {templates && <Templates of={of} close={() => setTemplates(false)} />}
    </div>
  );
}
