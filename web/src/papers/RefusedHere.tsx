// Why the authority refused what was filed last, at the place at fault.
import { useDesk } from "../desk/useDesk";
import { useProgress } from "../handover/useProgress";

type At = { paper?: string; person?: string; field?: string };

/** `but` are the fields that show their own. */
export function RefusedHere({ place, but }: { place: At; but?: string[] }) {
  const { opened } = useDesk();
  const progress = useProgress(opened.id, opened.revision);
  const stands = ({
    paper,
    person,
    field,
  }: {
    paper?: string | null;
    person?: string | null;
    field?: string | null;
  }) =>
    (paper ?? undefined) === place.paper &&
    (person ?? undefined) === place.person &&
    (place.field === undefined ? !but?.includes(field ?? "") : field === place.field);
  return progress.data?.refusals
    .filter((refusal) => stands(refusal.place))
    .map((refusal) => (
      <p key={refusal.words} className="col-span-full my-1 border-l-4 border-ochre bg-sand px-3 py-1.5">
        <b>Refused by the authority.</b> {refusal.words}
      </p>
    ));
}
