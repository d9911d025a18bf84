// A new household: its name, the law, the year and one or two filers.
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { PackInfo } from "../api/types";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

export function NewHousehold({ packs, onClose }: { packs: PackInfo[]; onClose: () => void }) {
  const [country, setCountry] = useState(packs[0]?.id ?? "");
  const [fault, setFault] = useState("");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const pack = packs.find((p) => p.id === country);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    const filers = [1, 2]
      .map((i) => ({ name: text(`filer${i}`), born: text(`born${i}`) }))
      .filter((f) => f.name);
    const body = { name: text("name"), country, year: Number(form.get("year")), filers };
    try {
      const made = await ask(api.POST("/api/households", { body }));
      queries.invalidateQueries({ queryKey: ["households"] });
      await navigate({ to: "/h/$id/spread", params: { id: made.id }, search: { household: true } });
    } catch (error) {
      setFault((error as Refusal).message);
    }
  };
  return (
    <Sheet title="New household" about="Its people and papers follow on the desk." onClose={onClose}>
      <form onSubmit={submit} className="grid grid-cols-[1fr_10rem] gap-x-3 gap-y-2.5">
        <label className="col-span-2">
          Household
          <input name="name" className="box" required maxLength={120} />
        </label>
        <label>
          Law
          <select className="box" value={country} onChange={(e) => setCountry(e.target.value)}>
            {packs.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
        <label>
          Return year
          <select name="year" className="box">
            {pack?.years.map((year) => (
              <option key={year}>{year}</option>
            ))}
          </select>
        </label>
        <label>
          First filer
          <input name="filer1" className="box" required maxLength={120} />
        </label>
        <label>
          Born
          <input name="born1" type="date" className="box" />
        </label>
        <label>
          Second filer, if any
          <input name="filer2" className="box" maxLength={120} />
        </label>
        <label>
          Born
          <input name="born2" type="date" className="box" />
        </label>
        {fault && (
          <p role="alert" className="col-span-2 border-l-4 border-ochre bg-sand px-3 py-2">
            {fault}
          </p>
        )}
        <div className="col-span-2 mt-2 flex gap-2">
          <Button type="submit" tone="main">
            Make it
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Sheet>
  );
}
