// The boxes of a person that no law asks for by itself: name, dates, number, months in the home with a filer.
import type { Command, Entry, Person } from "../api/types";
import { type How, useDesk } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";

type Own = "name" | "born" | "died" | "id_number";

const OWN: Record<Exclude<Own, "id_number">, ReturnType<typeof field>> = {
  name: field("name", "Name", { type: "text", max: 120 }),
  born: field("born", "Born", { type: "date" }),
  died: field("died", "Died", { type: "date" }),
};
const MONTHS = field("lived_with", "Months together", { type: "count", max: 12 });

type Props = { person: Person; label?: string; focus?: boolean; settled?: () => void };

/** A name, a date, or the number, which is hidden but for four digits: showing it is noted. */
export function PersonBox({ of, person, label, focus, settled }: Props & { of: Own }) {
  const { pack, edit } = useDesk();
  const number = {
    ...field("id_number", pack.id_number, { type: "text", max: 30 }),
    secret: true,
    shape: pack.id_shape,
  };
  const box = of === "id_number" ? number : OWN[of];
  const keep = (value: Entry | null, how: How) => {
    const change: Command = { do: "set_person", person: person.id, [of]: String(value ?? "") };
    settled?.();
    return edit([change], how);
  };
  return (
    <EntryBox
      field={box}
      label={label ?? box.label}
      value={person[of] ?? undefined}
      people={[]}
      focus={focus}
      keep={keep}
      secretAt={of === "id_number" ? { person: person.id } : undefined}
    />
  );
}

/** The months that a dependent lived in the same home as a filer. */
export function MonthsBox({ person, filer, label, focus, settled }: Props & { filer: Person }) {
  const { edit } = useDesk();
  return (
    <EntryBox
      field={MONTHS}
      label={label ?? `Months with ${filer.name}`}
      value={person.lived_with?.[filer.id]}
      people={[]}
      focus={focus}
      keep={(value, how) => {
        settled?.();
        const months = value as number | null;
        return edit([{ do: "set_lived_with", person: person.id, with: filer.id, months }], how);
      }}
    />
  );
}
