// A person: name, dates, number, months in the home, and the law's questions.
import { useState } from "react";
import type { Command, Paper, Person } from "../api/types";
import { equalShares } from "../desk/newPaper";
import { useDesk, words } from "../desk/useDesk";
import { NotesAt } from "../notes/NotesAt";
import { RefusedHere } from "../papers/RefusedHere";
import { Questions } from "../points/Questions";
import { count } from "../ui/format";
import { Line } from "../ui/Line";
import { Button } from "../ui/pieces";
import { Removing } from "../ui/Removing";
import { MonthsBox, PersonBox } from "./PersonBoxes";
import { PanelHead } from "./SpreadView";

export function PersonPanel({ person, at }: { person: Person; at: string | undefined }) {
  const { opened, pack, edit } = useDesk();
  const people = opened.household.people;
  const filers = people.filter((p) => p.role === "filer");
  const questions = pack.person_questions.filter((q) => q.of.includes(person.role));
  return (
    <>
      <PanelHead over={person.role === "filer" ? "Filer" : "May depend on a filer"} title={person.name} />
      <div className="px-4 pb-4">
        {(["name", "born", "died", "id_number"] as const).map((own) => (
          <Line
            key={own}
            label={{ name: "Name", born: "Born", died: "Died", id_number: pack.id_number }[own]}
          >
            <PersonBox of={own} person={person} focus={at === own} />
          </Line>
        ))}
        <RefusedHere place={{ person: person.id }} />
        {person.role === "dependent" &&
          filers.map((filer) => (
            <Line key={filer.id} label={`Months with ${filer.name.split(" ")[0]}`}>
              <MonthsBox
                person={person}
                filer={filer}
                focus={at === "lived_with" && filer.id === filers[0]?.id}
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
        <NotesAt place={{ person: person.id }} about={person.name} />
        <RemovePerson person={person} />
      </div>
    </>
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
