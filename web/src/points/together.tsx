// Points together by person and paper or by their rule; what waits on one; and what comes next once none blocks.
import { Link } from "@tanstack/react-router";
import type { Opened, Point } from "../api/types";
import { paperName } from "../desk/newPaper";
import { useDesk } from "../desk/useDesk";
import { capital, count } from "../ui/format";
import { Key } from "../ui/pieces";

/** By what the points are put together. */
export type By = "weight" | "place" | "rule";

const BY: Record<By, string> = { weight: "weight", place: "person and paper", rule: "the rule that asks" };

export function Sorted({ by, sort }: { by: By; sort: (by: By) => void }) {
  return (
    <label className="mb-3 flex items-center justify-end gap-2 text-soft">
      Together by
      <select className="box w-44!" value={by} onChange={(event) => sort(event.target.value as By)}>
        {Object.entries(BY).map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </select>
      <span>
        <Key>[</Key> <Key>]</Key> walk
      </span>
    </label>
  );
}

/** The points under the person and paper at which they stand, or under the rule that asks. */
export function grouped(points: Point[], by: By, { household }: Opened): [string, Point[]][] {
  const title = ({ place, cite }: Point) => {
    if (by === "rule") return cite || "No rule of law: the practice's own look";
    const paper = household.papers?.find((one) => one.id === place.paper);
    const owner = paper?.owners[0]?.person;
    const person = household.people.find((one) => one.id === (place.person ?? owner));
    const parts = [person?.name, paper && paperName(paper)].filter(Boolean);
    return parts.join(" · ") || (place.decision ? "What is held" : "The household");
  };
  const found = new Map<string, Point[]>();
  for (const point of points) found.set(title(point), [...(found.get(title(point)) ?? []), point]);
  return [...found];
}

/** Nothing holds up the filing: what happens next. */
export function Ready({ looking, blanks }: { looking: number; blanks: number }) {
  const { opened } = useDesk();
  const { covered, planning } = opened.outcome;
  const left = [
    looking > 0 && `${count(looking, "point")} ${looking === 1 ? "is" : "are"} worth a look`,
    blanks > 0 && `${count(blanks, "blank")} ${blanks === 1 ? "is" : "are"} read as below`,
  ].filter(Boolean);
  if (!covered || planning) return null;
  return (
    <p className="mb-4 border-l-4 border-petrol bg-wash px-3 py-2">
      <b>Ready: nothing holds up the filing.</b>{" "}
      {left.length > 0 && <span className="text-soft">{capital(left.join("; "))}. </span>}
      <Link to="/h/$id/hand-over" params={{ id: opened.id }} search={{}} className="text-petrol underline">
        On to the review
      </Link>
    </p>
  );
}

/** What waits on a point, one after the other. */
export function Waits({ point }: { point: Point }) {
  const { authorities } = useDesk().opened.outcome;
  const others = authorities.slice(1).map(({ name }) => `the return of ${name} follows, which stands on it`);
  if (point.weight !== "blocks") return <p className="mt-3 text-soft">Nothing waits on it.</p>;
  const result = point.not_covered ? ["the figures become a result"] : [];
  const chain = point.authority
    ? [...result, `the return of ${point.authority} is filed`]
    : [...result, "the return is cleared", "it is handed over and filed", ...others];
  return (
    <section className="mt-4">
      <h3 className="mb-1">What waits on it</h3>
      <ol className="list-inside">
        {chain.map((words, at) => (
          <li key={words} className="row-line py-0.5">
            <span className="text-soft">{at === 0 ? "then" : "and then"}</span> {words}
          </li>
        ))}
      </ol>
      {point.authority && (
        <p className="mt-2 text-soft">
          The {authorities[0]?.name} return does not wait on it: it may be filed before.
        </p>
      )}
    </section>
  );
}
