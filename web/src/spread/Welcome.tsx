// Beside a Spread on which nothing is marked: what to do first.
import { Link } from "@tanstack/react-router";
import { useDesk } from "../desk/useDesk";
import { units } from "../ui/format";
import { Diamond, Key } from "../ui/pieces";
import { LostList } from "../ways/LostList";
import { Turns } from "../ways/Turns";
import { PanelHead } from "./SpreadView";

/** The results beside those of the year before, of a household that was carried forward. */
function AgainstLastYear() {
  const { opened } = useDesk();
  const { household, outcome } = opened;
  if (!household.before) return null;
  const { year, results = {} } = household.before;
  const rows = outcome.spread.flatMap((section) => section.rows).filter((row) => row.label in results);
  return (
    <div className="px-4 py-2">
      <h3 className="mb-1">Against {year}</h3>
      <table className="w-full">
        <thead>
          <tr className="text-right text-soft">
            <td />
            <th scope="col" className="font-normal">
              {year}
            </th>
            <th scope="col" className="pl-2 font-normal">
              {household.year}
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.label} className="row-line h-[25px]">
              <th scope="row" className="text-left font-normal">
                {row.label}
              </th>
              <td className="text-right text-soft">{units(String(results[row.label]))}</td>
              <td className="pl-2 text-right">{units(row.together?.amount ?? "0")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

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
      <AgainstLastYear />
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
