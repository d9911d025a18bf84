import { turnKeys, useKeysOn } from "../ui/keys";
import { Key } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

const KEYS: [string[], string][] = [
  [["↑", "↓", "←", "→"], "walk the Spread"],
  [["↵"], "open the cell under the mark; in a box: keep it and go on"],
  [["/"], "find a line, a person or a paper, or add a paper"],
  [["N"], "add a paper"],
  [["T"], "open or close the trail"],
  [["S"], "Spread"],
  [["P"], "Papers; there ] and [ walk them"],
  [["A"], "what the authority holds, beside the papers; there ] and [ walk the slips"],
  [["Y"], "yes, in a box for yes or no; N no, Delete empties it"],
  [["Alt", "↓"], "show the list of a box; typing searches it"],
  [["W"], "Ways"],
  [["E"], "trials: what would happen if"],
  [["O"], "Open points; there ] and [ walk them"],
  [
    ["F"],
    "Schedules, the official forms; there ↑ ↓ walk the lines, Space ticks one off, ] and [ walk the forms",
  ],
  [["G"], "Hand-over: where the return stands, the pack; there D makes the PDF"],
  [["M"], "a note on what you stand on, or all notes"],
  [["H"], "History"],
  [["L"], "the list of households"],
  [["Z"], "undo"],
  [["⇧", "Z"], "redo"],
  [["F1"], "in a box: what it is, where it goes and by which rule, with an example"],
  [["Esc"], "close; in a box: take the typing back, then leave the box"],
];

export function KeyList({ close }: { close: () => void }) {
  const on = useKeysOn();
  return (
    <Sheet title="Keys" about="Letters work wherever nothing can be typed." size="wide" onClose={close}>
      <label className="mb-3 flex items-center gap-2">
        <input type="checkbox" checked={on} onChange={(e) => turnKeys(e.target.checked)} />
        Single letters and signs do something
      </label>
      <dl className="grid grid-cols-[9rem_1fr] gap-y-1.5">
        {KEYS.map(([keys, what]) => (
          <div key={what} className="contents">
            <dt className="space-x-1">
              {keys.map((key) => (
                <Key key={key}>{key}</Key>
              ))}
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
