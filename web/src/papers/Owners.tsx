// Whose a paper is: one person, or people with shares that add up to a hundred.
import { useState } from "react";
import type { Entry, Paper, PaperKind } from "../api/types";
import { equalShares } from "../desk/newPaper";
import { useDesk, words } from "../desk/useDesk";
import { EntryBox } from "../ui/EntryBox";
import { field } from "../ui/field";
import { BoxLine } from "./PaperForm";

const PERCENT = field("percent", "Share in per cent", { type: "text", max: 12 });

export function Owners({ paper, kind }: { paper: Paper; kind: PaperKind }) {
  const { opened, edit } = useDesk();
  const { people } = opened.household;
  const filers = people.filter((p) => p.role === "filer").map((p) => p.id);
  const [fault, setFault] = useState<string | null>(null);
  const shared = paper.owners.length > 1;
  const set = async (owners: Paper["owners"]) => {
    const wrong = await edit([{ do: "set_paper", paper: paper.id, owners }]);
    setFault(words(wrong));
    return wrong;
  };
  const choose = (value: string) => set(equalShares(value === "shared" ? filers : [value]));
  return (
    <>
      <BoxLine label="Whose" wide>
        <select
          className="box"
          aria-label="Whose"
          data-box="owner"
          value={shared ? "shared" : paper.owners[0]?.person}
          onChange={(e) => choose(e.target.value)}
        >
          {people.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
          {kind.shared && filers.length > 1 && <option value="shared">Both filers, shared</option>}
        </select>
      </BoxLine>
      {shared &&
        paper.owners.map((owner, i) => {
          const name = people.find((p) => p.id === owner.person)?.name ?? owner.person;
          return (
            <BoxLine key={owner.person} label={`${name.split(" ")[0]}'s share, %`}>
              <EntryBox
                field={PERCENT}
                label={`${name}'s share in per cent`}
                value={owner.percent}
                people={[]}
                keep={(value) =>
                  set(paper.owners.map((o, k) => share(o, k === i, value, paper.owners.length)))
                }
              />
            </BoxLine>
          );
        })}
      {fault && !shared && (
        <p role="alert" className="col-span-2 text-ochre">
          {fault}
        </p>
      )}
    </>
  );
}

/** With two owners the other one has the rest. */
function share(owner: Paper["owners"][number], changed: boolean, value: Entry | null, owners: number) {
  const typed = String(value ?? "0")
    .replace("%", "")
    .trim();
  if (changed) return { ...owner, percent: typed };
  const rest = 100 - Number(typed);
  return owners === 2 && rest >= 0 ? { ...owner, percent: String(Number(rest.toFixed(6))) } : owner;
}
