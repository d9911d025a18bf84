// A person: name, dates, number, months in the home, and the law's questions.
import { useState } from "react";
import type { Command, Entry, Person } from "../api/types";
import { useDesk, words } from "../desk/useDesk";
import { EntryBox } from "../ui/EntryBox";
import { field } from "../ui/field";
import { Button } from "../ui/pieces";
import { PanelHead } from "./SpreadView";

const NAME = field("name", "Name", { type: "text", max: 120 });
const BORN = field("born", "Born", { type: "date" });
const DIED = field("died", "Died", { type: "date" });
const MONTHS = field("lived_with", "", { type: "count", max: 12 });

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
              secretAt={{ person: person.id, field: question.id }}
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
        {help && <span className="block text-[12px] text-soft">{help}</span>}
      </span>
      {children}
    </div>
  );
}

/** The identification number: hidden but for four digits; showing it is noted. */
function NumberLine({ person }: { person: Person }) {
  const { pack, edit } = useDesk();
  const number = { ...field("id_number", pack.id_number, { type: "text", max: 30 }), secret: true };
  return (
    <Line label={pack.id_number}>
      <span>
        <EntryBox
          field={number}
          label={pack.id_number}
          value={person.id_number ?? undefined}
          people={[]}
          keep={(value) => edit([{ do: "set_person", person: person.id, id_number: String(value ?? "") }])}
          secretAt={{ person: person.id }}
        />
      </span>
    </Line>
  );
}

function RemovePerson({ person }: { person: Person }) {
  const { edit } = useDesk();
  const [fault, setFault] = useState<string | null>(null);
  return (
    <div className="pt-3">
      <Button onClick={async () => setFault(words(await edit([{ do: "remove_person", person: person.id }])))}>
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
