// What of a country's declarations is on the forms of a household's year, and called for by its answers.
import type { Household, PackInfo } from "../api/types";

type Limited = { years: { since?: number | null; until?: number | null } };

type Called = Limited & { only?: { question: string; answers: string[] } | null };

export function forHousehold(
  pack: PackInfo,
  { year, answers }: Pick<Household, "year" | "answers">,
): PackInfo {
  const holds = ({ years }: Limited) => (years.since ?? year) <= year && year <= (years.until ?? year);
  const called = (field: Called) =>
    holds(field) && (!field.only || field.only.answers.includes(String(answers?.[field.only.question])));
  return {
    ...pack,
    household_questions: pack.household_questions.filter(called),
    person_questions: pack.person_questions.filter((question) => holds(question)),
    paper_kinds: pack.paper_kinds.filter(holds).map((kind) => ({
      ...kind,
      boxes: kind.boxes.filter(called),
      columns: kind.columns.filter(called),
    })),
  };
}
