// What is left blank and read as No, zero or what else its law says: told by number, shown on demand, answered where it stands.
import { Link } from "@tanstack/react-router";
import type { Blank, Command, Entry } from "../api/types";
import { paperName } from "../desk/newPaper";
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { count } from "../ui/format";

export function Blanks({ blanks, open }: { blanks: Blank[]; open: boolean }) {
  if (blanks.length === 0) return null;
  return (
    <details open={open || undefined}>
      <summary className="cursor-pointer border-b border-ink pb-1">
        <b>{told(blanks)}</b>
        {!open && <span className="text-petrol underline"> show them</span>}
      </summary>
      {blanks.map((blank) => (
        <OneBlank key={JSON.stringify(blank.place)} blank={blank} />
      ))}
    </details>
  );
}

/** "25 blanks: 19 read as No, 4 as zero, 2 as written below". */
function told(blanks: Blank[]) {
  const no = blanks.filter((b) => b.read_as === "No").length;
  const zero = blanks.filter((b) => b.read_as === "0").length;
  const rest = blanks.length - no - zero;
  const parts = [
    no > 0 && `${no} as No`,
    zero > 0 && `${zero} as zero`,
    rest > 0 && `${rest} as written below`,
  ];
  return `${count(blanks.length, "blank")}, read ${parts.filter((p) => p !== false).join(", ")}`;
}

function OneBlank({ blank }: { blank: Blank }) {
  const { opened, pack, edit } = useDesk();
  const { household } = opened;
  const { place } = blank;
  const person = household.people.find((p) => p.id === place.person);
  const paper = household.papers?.find((p) => p.id === place.paper);
  const question = paper
    ? undefined
    : (person ? pack.person_questions : pack.household_questions).find((q) => q.id === place.field);
  const command = (field: string, value: Entry | null): Command =>
    person ? { do: "answer_for", person: person.id, field, value } : { do: "answer", field, value };
  return (
    <div className="row-line grid grid-cols-[9rem_1fr_5rem_9.5rem] items-center gap-x-3 bg-sheet px-2 py-1 max-md:grid-cols-[1fr_auto]">
      <span className="truncate text-soft">{person?.name ?? (paper ? paperName(paper) : "Together")}</span>
      <span>{blank.label}</span>
      <span className="text-soft">{blank.read_as}</span>
      {question ? (
        <EntryBox
          field={question}
          label={`${blank.label}, ${person?.name ?? "together"}`}
          value={undefined}
          people={household.people}
          keep={(value, how) => edit([command(question.id, value)], how)}
        />
      ) : (
        <Link
          to="/h/$id/papers"
          params={{ id: opened.id }}
          search={{ paper: place.paper ?? undefined, field: place.field ?? undefined }}
          className="text-petrol underline"
        >
          Go to the box
        </Link>
      )}
    </div>
  );
}
