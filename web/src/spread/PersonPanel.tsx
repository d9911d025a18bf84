// A person: name, dates, number, months in the home, and the law's questions.
import { useState } from "react";
import type { Command, Entry, Paper, Person } from "../api/types";
import { equalShares } from "../desk/newPaper";
import { type How, useDesk, words } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { Questions } from "../points/Questions";
import { count } from "../ui/format";
import { Line } from "../ui/Line";
import { Button } from "../ui/pieces";
import { Removing } from "../ui/Removing";
import { PanelHead } from "./SpreadView";

const NAME = field("name", "Name", { type: "text", max: 120 });
const BORN = field("born", "Born", { type: "date" });
const DIED = field("died", "Died", { type: "date" });
const MONTHS = field("lived_with", "", { type: "count", max: 12 });

export function PersonPanel({ person, at }: { person: Person; at: string | undefined }) {
  const { opened, pack, edit } = useDesk();
  const people = opened.household.people;
  const filers = people.filter((p) => p.role === "filer");
  const questions = pack.person_questions.filter((q) => q.of.includes(person.role));
  const set = (change: Partial<Extract<Command, { do: "set_person" }>>, how: How) =>
    edit([{ do: "set_person", person: person.id, ...change }], how);
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
            keep={(v, how) => set({ name: text(v) }, how)}
          />
        </Line>
        <Line label="Born">
          <EntryBox
            field={BORN}
            label="Born"
            focus={at === "born"}
            value={person.born ?? undefined}
            people={people}
            keep={(v, how) => set({ born: text(v) }, how)}
          />
        </Line>
        <Line label="Died">
          <EntryBox
            field={DIED}
            label="Died"
            focus={at === "died"}
            value={person.died ?? undefined}
            people={people}
            keep={(v, how) => set({ died: text(v) }, how)}
          />
        </Line>
        <NumberLine person={person} focus={at === "id_number"} />
        {person.role === "dependent" &&
          filers.map((filer) => (
            <Line key={filer.id} label={`Months with ${filer.name.split(" ")[0]}`}>
              <EntryBox
                field={MONTHS}
                label={`Months with ${filer.name}`}
                focus={at === "lived_with" && filer.id === filers[0]?.id}
                value={person.lived_with?.[filer.id]}
                people={people}
                keep={(v, how) => {
                  const months = v as number | null;
                  return edit([{ do: "set_lived_with", person: person.id, with: filer.id, months }], how);
                }}
              />
            </Line>
          ))}
        <Questions
          questions={questions}
          answers={person.answers}
          person={person}
          at={at}
          keep={(field) => (value, how) => edit([{ do: "answer_for", person: person.id, field, value }], how)}
        />
        <RemovePerson person={person} />
      </div>
    </>
  );
}

/** The identification number: hidden but for four digits; showing it is noted. */
function NumberLine({ person, focus }: { person: Person; focus: boolean }) {
  const { pack, edit } = useDesk();
  const text = field("id_number", pack.id_number, { type: "text", max: 30 });
  return (
    <Line label={pack.id_number}>
      <EntryBox
        field={{ ...text, secret: true, shape: pack.id_shape }}
        label={pack.id_number}
        focus={focus}
        value={person.id_number ?? undefined}
        people={[]}
        keep={(value, how) =>
          edit([{ do: "set_person", person: person.id, id_number: String(value ?? "") }], how)
        }
        secretAt={{ person: person.id }}
      />
    </Line>
  );
}

/** What is the person's alone goes; what is shared stays with the other owners. */
function RemovePerson({ person }: { person: Person }) {
  const { edit, opened } = useDesk();
  const [fault, setFault] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  const papers = (opened.household.papers ?? []).filter((p) => p.owners.some((o) => o.person === person.id));
  const others = (paper: Paper) => paper.owners.map((o) => o.person).filter((id) => id !== person.id);
  const alone = papers.filter((p) => others(p).length === 0);
  const shared = papers.filter((p) => others(p).length > 0);
  const named = ({ kind, title }: Paper) => `${kind} ${title ?? ""}`.trim();
  const answers = Object.keys(person.answers ?? {}).length;
  const goes = [
    ...(answers > 0 ? [count(answers, "answer")] : []),
    ...alone.map((p) => `the paper ${named(p)}`),
    ...shared.map((p) => `the share in ${named(p)}, which stays with the other owner`),
  ];
  const remove = async () => {
    const commands: Command[] = [
      ...alone.map((p): Command => ({ do: "remove_paper", paper: p.id })),
      ...shared.map((p): Command => ({ do: "set_paper", paper: p.id, owners: equalShares(others(p)) })),
      { do: "remove_person", person: person.id },
    ];
    setFault(words(await edit(commands)));
  };
  return (
    <div className="pt-3">
      <Button onClick={() => (goes.length > 0 ? setAsking(true) : void remove())}>
        Remove {person.name}
      </Button>
      {asking && <Removing what={person.name} goes={goes} remove={remove} leave={() => setAsking(false)} />}
      {fault && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-2">
          {fault}
        </p>
      )}
    </div>
  );
}
