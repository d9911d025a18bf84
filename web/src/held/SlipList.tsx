// The slips that are held, by person; each with how it stands to what was keyed, by shape and word.
import { Link } from "@tanstack/react-router";
import type { Offered } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { toDecide } from "./useOutside";

const WORDS: Record<Offered["state"], string> = {
  new: "new",
  agrees: "agrees",
  differs: "differs",
  kept: "kept as keyed",
  refused: "refused",
  gone: "gone",
  unusable: "cannot be used",
};

export function SlipList({ offered, chosen }: { offered: Offered[]; chosen: string | undefined }) {
  const { opened } = useDesk();
  const people = opened.household.people.filter((p) => offered.some((one) => one.person === p.id));
  if (offered.length === 0) return null;
  const open = toDecide(offered).length;
  return (
    <>
      {people.map((person) => (
        <div key={person.id}>
          <h3 className="px-4 pt-3 pb-1 text-plum">{person.name.split(" ")[0]}</h3>
          <ul>
            {offered
              .filter((one) => one.person === person.id)
              .map((one) => (
                <li key={one.slip}>
                  <Link
                    to="/h/$id/held"
                    params={{ id: opened.id }}
                    search={{ slip: one.slip }}
                    aria-current={one.slip === chosen ? "true" : undefined}
                    className={`grid h-[26px] grid-cols-[84px_1fr_auto] items-center gap-x-2 border-l-3 px-3.5 ${
                      one.slip === chosen ? "border-petrol bg-wash" : "border-transparent hover:bg-lilac"
                    }`}
                  >
                    <b className="truncate">{one.kind}</b>
                    <span className="truncate">{one.title}</span>
                    <State offered={one} />
                  </Link>
                </li>
              ))}
          </ul>
        </div>
      ))}
      <p className="px-4 pt-2 text-soft">
        {open === 0 ? "All of them are settled." : `${open} of ${offered.length} to settle.`}
      </p>
    </>
  );
}

function State({ offered }: { offered: Offered }) {
  const differs = offered.state === "differs" || offered.state === "gone";
  return (
    <span
      className={
        differs ? "font-semibold text-ochre" : offered.state === "new" ? "font-semibold" : "text-soft"
      }
    >
      {WORDS[offered.state]}
      {offered.settled && offered.state === "agrees" && <span className="text-petrol"> ✓</span>}
    </span>
  );
}
