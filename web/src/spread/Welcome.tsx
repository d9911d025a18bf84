// Beside a Spread on which nothing is marked: what to do first.
import { Link } from "@tanstack/react-router";
import { useDesk } from "../desk/useDesk";
import { Diamond, Key } from "../ui/pieces";
import { LostList } from "../ways/LostList";
import { Turns } from "../ways/Turns";
import { PanelHead } from "./SpreadView";

export function Welcome() {
  const { opened } = useDesk();
  const { household, outcome } = opened;
  const open = outcome.points.filter((p) => !p.dismissed);
  const empty = (household.papers ?? []).length === 0;
  return (
    <>
      <PanelHead
        over="Where to begin"
        title={empty ? "Key the first paper" : "Mark a figure to see where it comes from"}
      >
        <p className="mt-1 text-soft">
          {empty ? (
            <>
              <Key>N</Key> and its code, such as the number printed on the form. People stand at the head of
              the columns.
            </>
          ) : (
            <>
              Arrows walk the sheet, <Key>T</Key> opens the trail, a person's name opens the person.
            </>
          )}
        </p>
      </PanelHead>
      {open.length > 0 && (
        <div className="px-4 py-2">
          <h3 className="mb-1">Open points</h3>
          <ul>
            {open.slice(0, 7).map((point) => (
              <li key={point.id} className="row-line flex gap-2 py-1">
                <span className="pt-0.5">
                  <Diamond solid={point.weight === "blocks"} />
                </span>
                {point.message}
              </li>
            ))}
          </ul>
          <Link to="/h/$id/points" params={{ id: opened.id }} search={{}} className="text-petrol underline">
            {open.length > 7 ? `All ${open.length} open points` : "Settle them"}
          </Link>
        </div>
      )}
      <div className="px-4 py-2">
        <Turns />
      </div>
      {!empty && (
        <div className="px-4 py-2">
          <h3 className="mb-1">Lost to limits</h3>
          <LostList />
        </div>
      )}
    </>
  );
}
