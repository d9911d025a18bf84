// Adding a person: a name and what the person is; the rest is answered in the person's panel.
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import type { Opened, Person } from "../api/types";
import { freshId } from "../desk/newPaper";
import { useDesk, words } from "../desk/useDesk";
import { enterGoesOn } from "../entry/boxes";
import { ChoiceBox } from "../entry/ChoiceBox";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { focusAtOnce } from "../ui/focus";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

const BORN = field("born", "Born", { type: "date" });
const ROLES = [
  { id: "dependent", label: "May depend on a filer" },
  { id: "filer", label: "Files a return" },
];

export function AddPerson() {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button tone="quiet" className="pb-1.5" onClick={() => setAsking(true)}>
        Add a person
      </Button>
      {asking && <AddPersonSheet close={() => setAsking(false)} />}
    </>
  );
}

export function AddPersonSheet({ called = "", close }: { called?: string; close: () => void }) {
  const { opened, edit } = useDesk();
  const { people } = opened.household;
  const filers = people.filter((p) => p.role === "filer");
  const [fault, setFault] = useState("");
  const [born, setBorn] = useState<string | null>(null);
  // Enter in the last box keeps it and adds the person in one go.
  const bornNow = useRef(born);
  const [role, setRole] = useState<Person["role"]>("dependent");
  const navigate = useNavigate();
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const name = String(new FormData(event.currentTarget).get("name")).trim();
    const id = freshId(
      name.split(" ")[0] ?? "person",
      people.map((p) => p.id),
    );
    const person = { id, name, role, ...(bornNow.current ? { born: bornNow.current } : {}) };
    const months = (now: Opened) =>
      role === "dependent" && now.outcome.one_home ? Object.fromEntries(filers.map((f) => [f.id, 12])) : {};
    // What was answered just before may still be on its way: whether all share one home is read when it has come.
    const wrong = await edit((now) => [{ do: "add_person", person: { ...person, lived_with: months(now) } }]);
    if (wrong) return setFault(words(wrong) ?? "");
    close();
    void navigate({ to: "/h/$id/spread", params: { id: opened.id }, search: { person: id } });
  };
  return (
    <Sheet title="Add a person" about="Questions about the person follow beside the Spread." onClose={close}>
      <form onSubmit={submit} className="grid grid-cols-[1fr_10rem] gap-x-3 gap-y-2.5">
        <label>
          Name
          <input
            ref={focusAtOnce}
            name="name"
            className="box"
            required
            maxLength={120}
            defaultValue={called}
            data-box="name"
            onKeyDown={enterGoesOn}
          />
        </label>
        <div>
          Born
          <EntryBox
            field={BORN}
            label="Born"
            value={born ?? undefined}
            people={[]}
            keep={async (value) => {
              bornNow.current = value === null ? null : String(value);
              setBorn(bornNow.current);
              return null;
            }}
          />
        </div>
        {filers.length < 2 && (
          <div className="col-span-2">
            In this household
            <ChoiceBox
              options={ROLES}
              value={role}
              keep={(value) => setRole((value ?? "dependent") as Person["role"])}
              refuse={(wrong) => setFault(words(wrong) ?? "")}
              shared={{ "aria-label": "In this household", "data-box": "role" }}
            />
          </div>
        )}
        {fault && (
          <p role="alert" className="col-span-2 border-l-4 border-ochre bg-sand px-3 py-2">
            {fault}
          </p>
        )}
        <div className="col-span-2 mt-1 flex gap-2">
          <Button type="submit" tone="main">
            Add
          </Button>
          <Button onClick={close}>Leave it</Button>
        </div>
      </form>
    </Sheet>
  );
}
