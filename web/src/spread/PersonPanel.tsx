// A person: name, dates, number, months in the home, and the law's questions.
import { useState } from "react";
import { api, ask } from "../api/client";
import type { Command, Entry, Field, Person } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../ui/EntryBox";
import { Button } from "../ui/pieces";
import { PanelHead } from "./SpreadView";

const NAME: Field = { id: "name", number: "", label: "Name", help: "", kind: { type: "text", max: 120 } };
const BORN: Field = { id: "born", number: "", label: "Born", help: "", kind: { type: "date" } };
const DIED: Field = { id: "died", number: "", label: "Died", help: "", kind: { type: "date" } };
const MONTHS: Field = { id: "lived_with", number: "", label: "", help: "", kind: { type: "count", max: 12 } };

export function PersonPanel({ person }: { person: Person }) {
  const { opened, pack, edit } = useDesk();
  const people = opened.household.people;
  const questions = pack.person_questions.filter((q) => q.of.includes(person.role));
  const set = (change: Partial<Extract<Command, { do: "set_person" }>>) =>
    edit([{ do: "set_person", person: person.id, ...change }]);
  const text = (value: Entry | null) => String(value ?? "");
  return (
    <>
      <PanelHead over={person.role === "filer" ? "Filer" : "May depend on a filer"} title={person.name} />
      <div className="px-4 pb-4">
        <Line label="Name">
          <EntryBox
            field={NAME}
            label="Name"
            value={person.name}
            people={people}
            keep={(v) => set({ name: text(v) })}
          />
        </Line>
        <Line label="Born">
          <EntryBox
            field={BORN}
            label="Born"
            value={person.born ?? undefined}
            people={people}
            keep={(v) => set({ born: text(v) })}
          />
        </Line>
        <Line label="Died">
          <EntryBox
            field={DIED}
            label="Died"
            value={person.died ?? undefined}
            people={people}
            keep={(v) => set({ died: text(v) })}
          />
        </Line>
        <NumberLine person={person} />
        {person.role === "dependent" &&
          people
            .filter((p) => p.role === "filer")
            .map((filer) => (
              <Line key={filer.id} label={`Months with ${filer.name.split(" ")[0]}`}>
                <EntryBox
                  field={MONTHS}
                  label={`Months with ${filer.name}`}
                  value={person.lived_with?.[filer.id]}
                  people={people}
                  keep={(v) =>
                    edit([
                      { do: "set_lived_with", person: person.id, with: filer.id, months: v as number | null },
                    ])
                  }
                />
              </Line>
            ))}
        {questions.map((question) => (
          <Line key={question.id} label={question.label} help={question.help}>
            <EntryBox
              field={question}
              label={question.label}
              value={person.answers?.[question.id]}
              people={people}
              keep={(value) => edit([{ do: "answer_for", person: person.id, field: question.id, value }])}
            />
          </Line>
        ))}
        <RemovePerson person={person} />
      </div>
    </>
  );
}

export function Line({ label, help, children }: { label: string; help?: string; children: React.ReactNode }) {
  return (
    <div className="row-line grid grid-cols-[1fr_9.5rem] items-center gap-x-3 py-1">
      <span>
        {label}
        {help && <span className="block text-[11px] text-soft">{help}</span>}
      </span>
      {children}
    </div>
  );
}

/** The identification number: hidden but for four digits; showing it is noted. */
function NumberLine({ person }: { person: Person }) {
  const { opened, pack, edit } = useDesk();
  const [shown, setShown] = useState<string | null>(null);
  const field: Field = {
    id: "id_number",
    number: "",
    label: pack.id_number,
    help: "",
    kind: { type: "text", max: 30 },
  };
  const reveal = async () => {
    const path = { id: opened.id, person: person.id };
    const answer = await ask(api.POST("/api/households/{id}/people/{person}/reveal", { params: { path } }));
    setShown(answer.id_number ?? null);
  };
  const keep = (value: Entry | null) => {
    setShown(null);
    return edit([{ do: "set_person", person: person.id, id_number: String(value ?? "") }]);
  };
  const hidden = person.id_number ?? undefined;
  return (
    <div className="row-line grid grid-cols-[1fr_9.5rem] items-center gap-x-3 py-1">
      <span>
        {pack.id_number}{" "}
        {hidden && !shown && (
          <Button tone="quiet" onClick={reveal} aria-label={`Show the number of ${person.name}`}>
            Show
          </Button>
        )}
      </span>
      <EntryBox field={field} label={pack.id_number} value={shown ?? hidden} people={[]} keep={keep} />
    </div>
  );
}

function RemovePerson({ person }: { person: Person }) {
  const { edit } = useDesk();
  const [fault, setFault] = useState<string | null>(null);
  return (
    <div className="pt-3">
      <Button onClick={async () => setFault(await edit([{ do: "remove_person", person: person.id }]))}>
        Remove {person.name}
      </Button>
      {fault && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-2">
          {fault}
        </p>
      )}
    </div>
  );
}
