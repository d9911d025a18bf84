import { Key } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

const KEYS: [string[], string][] = [
  [["↑", "↓", "←", "→"], "walk the Spread"],
  [["↵"], "open the cell under the mark; in a box: keep it and go on"],
  [["/"], "find a line, a person or a paper, or add a paper"],
  [["N"], "add a paper"],
  [["T"], "open or close the trail"],
  [["S"], "Spread"],
  [["P"], "Papers"],
  [["W"], "Ways"],
  [["O"], "Open points"],
  [["F"], "Schedules, the official forms; there ↑ ↓ walk the lines, ] and [ the forms"],
  [["H"], "History"],
  [["Z"], "undo"],
  [["⇧", "Z"], "redo"],
  [["Esc"], "close; in a box: take the typing back, then leave the box"],
];

export function KeyList({ close }: { close: () => void }) {
  return (
    <Sheet title="Keys" about="They work wherever no text is being typed." onClose={close}>
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
