// Whose a paper is: one person, or people with shares that add up to a hundred.
import { useState } from "react";
import type { Entry, Paper, PaperKind } from "../api/types";
import { equalShares } from "../desk/newPaper";
import { type How, useDesk, words } from "../desk/useDesk";
import { ChoiceBox } from "../entry/ChoiceBox";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { BoxLine } from "./PaperForm";

const PERCENT = field("percent", "Share in per cent", { type: "text", max: 12 });

export function Owners({ paper, kind }: { paper: Paper; kind: PaperKind }) {
  const { opened, edit } = useDesk();
  const { people } = opened.household;
  const filers = people.filter((p) => p.role === "filer").map((p) => p.id);
  const [fault, setFault] = useState<string | null>(null);
  const shared = paper.owners.length > 1;
  const set = async (owners: Paper["owners"], how?: How) => {
    const wrong = await edit([{ do: "set_paper", paper: paper.id, owners }], how);
    setFault(words(wrong));
    return wrong;
  };
  const options = [
    ...people.map((p) => ({ id: p.id, label: p.name })),
    ...(kind.shared && filers.length > 1 ? [{ id: "shared", label: "Both filers, shared" }] : []),
  ];
  const choose = (value: string) => set(equalShares(value === "shared" ? filers : [value]));
  return (
    <>
      <BoxLine label="Whose" wide>
        <ChoiceBox
          options={options}
          value={shared ? "shared" : (paper.owners[0]?.person ?? "")}
          keep={(value) => value && void choose(value)}
          refuse={(refused) => setFault(words(refused))}
          shared={{ "aria-label": "Whose", "data-box": "owner" }}
        />
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
                keep={(value, how) =>
                  set(
                    paper.owners.map((o, k) => share(o, k === i, value, paper.owners.length)),
                    how,
                  )
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
