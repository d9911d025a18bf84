// The questions about the household as a whole.
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { AnswerNo } from "../points/AnswerNo";
import { Line } from "./PersonPanel";
import { PanelHead } from "./SpreadView";

export function HouseholdPanel() {
  const { opened, pack, edit } = useDesk();
  const { household } = opened;
  return (
    <>
      <PanelHead over="Together" title={`${household.name} household`} />
      <div className="px-4 pb-4">
        {pack.household_questions.map((question) => (
          <Line key={question.id} label={question.label} help={question.help}>
            <EntryBox
              field={question}
              label={question.label}
              value={household.answers?.[question.id]}
              people={household.people}
              keep={(value, how) => edit([{ do: "answer", field: question.id, value }], how)}
              secretAt={{ field: question.id }}
            />
          </Line>
        ))}
        <div className="pt-3">
          <AnswerNo />
        </div>
      </div>
    </>
  );
}
