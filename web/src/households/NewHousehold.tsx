// A new household: its name, the law, the year and one or two filers.
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { PackInfo } from "../api/types";
import type { Refused } from "../desk/useDesk";
import { words } from "../desk/useDesk";
import { enterGoesOn } from "../entry/boxes";
import { ChoiceBox } from "../entry/ChoiceBox";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { focusAtOnce } from "../ui/focus";
import { yearOf } from "../ui/format";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { dependentsOf, relationships } from "./dependents";

/** The latest year that is over. */
function usual(pack: PackInfo | undefined) {
  return pack?.years.find((year) => !pack.planning.includes(year)) ?? pack?.years[0];
}

/** A day of birth as people of a law write it. */
function example(order: PackInfo["days"]) {
  return { year_month_day: "2014 5 3", month_day_year: "5/3/2014", day_month_year: "3.5.2014" }[order];
}

const BORN = field("born", "Born", { type: "date" });

export function NewHousehold({ packs, onClose }: { packs: PackInfo[]; onClose: () => void }) {
  const [country, setCountry] = useState(packs[0]?.id ?? "");
  const pack = packs.find((p) => p.id === country);
  const [wanted, setWanted] = useState<number>();
  const year = pack?.years.includes(wanted ?? 0) ? wanted : usual(pack);
  const [locality, setLocality] = useState("");
  const places = pack?.household_questions.find((asked) => asked.id === pack.locality);
  const [born, setBorn] = useState<Record<number, string>>({});
  // Enter in the last box keeps it and makes the household in one go.
  const bornNow = useRef(born);
  const [fault, setFault] = useState("");
  const refuse = (refused: Refused) => setFault(words(refused) ?? "");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    const filers = [1, 2]
      .map((i) => ({ name: text(`filer${i}`), born: bornNow.current[i] ?? "" }))
      .filter((f) => f.name);
    const dependents = pack ? dependentsOf(text("dependents"), pack, year ?? 0) : [];
    if (typeof dependents === "string") {
      setFault(dependents);
      return;
    }
    const body = {
      name: text("name"),
      reference: text("reference"),
      country,
      year: year ?? 0,
      filers,
      dependents,
      locality: locality || null,
    };
    try {
      const made = await ask(api.POST("/api/households", { body }));
      queries.invalidateQueries({ queryKey: ["households"] });
      await navigate({
        to: "/h/$id/spread",
        params: { id: made.id },
        search: { household: true, field: pack?.household_questions[0]?.id },
      });
    } catch (error) {
      setFault((error as Refusal).message);
    }
  };
  const bornBox = (filer: number) => (
    <div>
      Born
      <EntryBox
        field={BORN}
        label={filer === 1 ? "Born" : "Second filer born"}
        value={born[filer] || undefined}
        people={[]}
        days={pack && { order: pack.days, year: year ?? 0 }}
        keep={async (value) => {
          bornNow.current = { ...bornNow.current, [filer]: String(value ?? "") };
          setBorn(bornNow.current);
          return null;
        }}
      />
    </div>
  );
  return (
    <Sheet title="New household" about="Its people and papers follow on the desk." onClose={onClose}>
      <form onSubmit={submit} className="grid grid-cols-[1fr_10rem] gap-x-3 gap-y-2.5">
        <label className="col-span-2">
          Household
          <input
            ref={focusAtOnce}
            name="name"
            className="box"
            required
            maxLength={120}
            data-box="name"
            onKeyDown={enterGoesOn}
          />
        </label>
        <div>
          Law
          <ChoiceBox
            options={packs.map((p) => ({ id: p.id, label: p.name }))}
            value={country}
            keep={(value) => {
              if (value) setCountry(value);
              setLocality("");
            }}
            refuse={refuse}
            shared={{ "aria-label": "Law", "data-box": "law" }}
          />
        </div>
        <div>
          Return year
          <ChoiceBox
            options={(pack?.years ?? []).map((y) => ({ id: String(y), label: yearOf(y, pack?.planning) }))}
            value={String(year ?? "")}
            keep={(value) => value && setWanted(Number(value))}
            refuse={refuse}
            shared={{ "aria-label": "Return year", "data-box": "year" }}
          />
        </div>
        {places?.kind.type === "choice" && (
          <div className="col-span-2">
            {places.label}
            <ChoiceBox
              options={places.kind.options}
              value={locality}
              keep={(value) => setLocality(value ?? "")}
              refuse={refuse}
              shared={{ "aria-label": places.label, "data-box": "locality" }}
            />
          </div>
        )}
        <label>
          First filer
          <input
            name="filer1"
            className="box"
            required
            maxLength={120}
            data-box="filer1"
            onKeyDown={enterGoesOn}
          />
        </label>
        {bornBox(1)}
        <label>
          Second filer, if any
          <input name="filer2" className="box" maxLength={120} data-box="filer2" onKeyDown={enterGoesOn} />
        </label>
        {bornBox(2)}
        <label className="col-span-2">
          Own number of the practice, if any
          <input name="reference" className="box" maxLength={40} />
        </label>
        <label className="col-span-2">
          Dependents, one a line: name, born, relationship
          <textarea
            name="dependents"
            className="box h-auto! py-1.5"
            rows={3}
            placeholder={
              pack && `Wren Mbeki, ${example(pack.days)}, ${relationships(pack)[0]?.label.toLowerCase()}`
            }
          />
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
