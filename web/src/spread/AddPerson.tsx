// Adding a person: a name and what the person is; the rest is answered in the person's panel.
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useState } from "react";
import type { Person } from "../api/types";
import { freshId } from "../desk/newPaper";
import { useDesk, words } from "../desk/useDesk";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

export function AddPerson() {
  const { opened, edit } = useDesk();
  const { people } = opened.household;
  const filers = people.filter((p) => p.role === "filer");
  const [asking, setAsking] = useState(false);
  const [fault, setFault] = useState("");
  const navigate = useNavigate();
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const name = String(form.get("name")).trim();
    const role = form.get("role") as Person["role"];
    const id = freshId(
      name.split(" ")[0] ?? "person",
      people.map((p) => p.id),
    );
    const born = String(form.get("born") ?? "");
    const months = Object.fromEntries(filers.map((f) => [f.id, 12]));
    const person: Person = {
      id,
      name,
      role,
      lived_with: role === "dependent" && opened.outcome.one_home ? months : {},
      ...(born ? { born } : {}),
    };
    const wrong = await edit([{ do: "add_person", person }]);
    if (wrong) return setFault(words(wrong) ?? "");
    setAsking(false);
    void navigate({ to: "/h/$id/spread", params: { id: opened.id }, search: { person: id } });
  };
  return (
    <>
      <Button tone="quiet" className="pb-1.5" onClick={() => setAsking(true)}>
        Add a person
      </Button>
      {asking && (
        <Sheet
          title="Add a person"
          about="Questions about the person follow beside the Spread."
          onClose={() => setAsking(false)}
        >
          <form onSubmit={submit} className="grid grid-cols-[1fr_10rem] gap-x-3 gap-y-2.5">
            <label>
              Name
              <input name="name" className="box" required maxLength={120} />
            </label>
            <label>
              Born
              <input name="born" type="date" className="box" />
            </label>
            <label className="col-span-2">
              In this household
              <select name="role" className="box" defaultValue={filers.length < 2 ? undefined : "dependent"}>
                <option value="dependent">May depend on a filer</option>
                {filers.length < 2 && <option value="filer">Files a return</option>}
              </select>
            </label>
            {fault && (
              <p role="alert" className="col-span-2 border-l-4 border-ochre bg-sand px-3 py-2">
                {fault}
              </p>
            )}
            <div className="col-span-2 mt-1 flex gap-2">
              <Button type="submit" tone="main">
                Add
              </Button>
              <Button onClick={() => setAsking(false)}>Leave it</Button>
            </div>
          </form>
        </Sheet>
      )}
    </>
  );
}
