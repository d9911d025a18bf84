// How far a person, a paper and a form are: empty, begun, complete or checked.
import type { FormOutcome, Opened, Paper, Person, Point } from "../api/types";
import { isToTick, type Ticked } from "../schedules/useTicks";
import type { Far } from "../ui/Mark";

/** The open points of a household that block. */
function blocking(opened: Opened): Point[] {
  return opened.outcome.points.filter((point) => !point.dismissed && point.weight === "blocks");
}

export function paperFar(paper: Paper, opened: Opened): Far {
  if (paper.checked && (paper.changed ?? []).length === 0) return "checked";
  if (Object.keys(paper.boxes ?? {}).length === 0 && (paper.rows ?? []).length === 0) return "empty";
  return blocking(opened).some((point) => point.place.paper === paper.id) ? "begun" : "complete";
}

/** A person with the papers that are theirs. */
export function personFar(person: Person, opened: Opened): Far {
  const papers = (opened.household.papers ?? []).filter((paper) =>
    paper.owners.some((owner) => owner.person === person.id),
  );
  if (!person.born && !person.id_number && papers.length === 0) return "empty";
  const far = papers.map((paper) => paperFar(paper, opened));
  const open = blocking(opened).some((point) => point.place.person === person.id);
  if (open || !person.born || !person.id_number || far.includes("begun") || far.includes("empty"))
    return "begun";
  return papers.length > 0 && far.every((one) => one === "checked") ? "checked" : "complete";
}

/** A form: begun once a line of it was found right or while something blocks, checked once all of them were. */
export function formFar(form: FormOutcome, opened: Opened, ticked: Ticked): Far {
  const lines = form.rows.filter(isToTick);
  const right = lines.filter((row) => ticked.of(row)).length;
  if (lines.length === 0) return "empty";
  if (right === lines.length) return "checked";
  return right > 0 || !opened.outcome.covered || blocking(opened).length > 0 ? "begun" : "complete";
}
