// Questions whose answer must be known, answered together: nothing is assumed, one press says it.
import type { Opened, PackInfo } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { Button } from "../ui/pieces";

/** The yes/no questions about the household on which it hangs whether the figures are a result. */
export function stillAsked({ household, outcome }: Opened, pack: PackInfo): string[] {
  const open = (field: string) =>
    household.answers?.[field] === undefined &&
    outcome.points.some((p) => p.not_covered && p.place.field === field && !p.place.person && !p.place.paper);
  return pack.household_questions.filter((q) => q.kind.type === "yes_no" && open(q.id)).map((q) => q.id);
}

export function AnswerNo() {
  const { opened, pack, edit } = useDesk();
  const asked = stillAsked(opened, pack);
  if (asked.length < 2) return null;
  return (
    <Button onClick={() => edit(asked.map((field) => ({ do: "answer", field, value: false })))}>
      No to the {asked.length} questions still open
    </Button>
  );
}
