// The household as a whole: its name, its own number, and the questions.
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { AnswerNo } from "../points/AnswerNo";
import { Questions } from "../points/Questions";
import { Line } from "../ui/Line";
import { PanelHead } from "./SpreadView";

const NAME = field("name", "Name in lists", { type: "text", max: 120 });
const REFERENCE = field("reference", "Own number", { type: "text", max: 40 });

export function HouseholdPanel({ at }: { at: string | undefined }) {
  const { opened, pack, edit } = useDesk();
  const { household } = opened;
  return (
    <>
      <PanelHead over="Together" title={`${household.name} household`} />
      <div className="px-4 pb-4">
        <Line label="Name in lists">
          <EntryBox
            field={NAME}
            label="Name in lists"
            value={household.name}
            people={[]}
            keep={(name, how) => edit([{ do: "rename", name: String(name ?? "") }], how)}
          />
        </Line>
        <Line label="Own number">
          <EntryBox
            field={REFERENCE}
            label="Own number"
            value={household.reference || undefined}
            people={[]}
            keep={(text, how) => edit([{ do: "refer", reference: String(text ?? "") }], how)}
          />
        </Line>
        <Questions
          questions={pack.household_questions}
          answers={household.answers}
          at={at}
          keep={(field) => (value, how) => edit([{ do: "answer", field, value }], how)}
        />
        <div className="pt-3">
          <AnswerNo />
        </div>
      </div>
    </>
  );
}
