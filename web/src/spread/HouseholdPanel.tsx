// The questions about the household as a whole.
import { useDesk } from "../desk/useDesk";
import { AnswerNo } from "../points/AnswerNo";
import { Questions } from "../points/Questions";
import { PanelHead } from "./SpreadView";

export function HouseholdPanel({ at }: { at: string | undefined }) {
  const { opened, pack, edit } = useDesk();
  const { household } = opened;
  return (
    <>
      <PanelHead over="Together" title={`${household.name} household`} />
      <div className="px-4 pb-4">
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
