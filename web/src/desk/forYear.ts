// What of a country's declarations is on the forms of one year.
import type { PackInfo } from "../api/types";

type Limited = { years: { since?: number | null; until?: number | null } };

export function forYear(pack: PackInfo, year: number): PackInfo {
  const holds = ({ years }: Limited) => (years.since ?? year) <= year && year <= (years.until ?? year);
  return {
    ...pack,
    household_questions: pack.household_questions.filter(holds),
    person_questions: pack.person_questions.filter(holds),
    paper_kinds: pack.paper_kinds.filter(holds).map((kind) => ({
      ...kind,
      boxes: kind.boxes.filter(holds),
      columns: kind.columns.filter(holds),
    })),
  };
}
