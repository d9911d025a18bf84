// Ways: what the law leaves open, what each option costs, and where the lowest ways part.
import { useState } from "react";
import { useDesk } from "../desk/useDesk";
import { Compared } from "./Compared";
import { Curve } from "./Curve";
import { Decisions } from "./Decisions";
import { LostList } from "./LostList";
import { Ranking } from "./Ranking";
import { type Shown, useComparison, written } from "./useComparison";

const NOTHING = { of: "", shown: { ways: [], allRows: false } };

export function WaysView() {
  const { opened } = useDesk();
  const [{ of, shown }, show] = useState<{ of: string; shown: Shown }>(NOTHING);
  // What was chosen to stand side by side is of one household.
  const now = of === opened.id ? shown : NOTHING.shown;
  const choose = (next: Shown) => show({ of: opened.id, shown: next });
  const over = useComparison().ways.find((way) => written(way) === now.ways[0]);
  return (
    <div className="grid h-full grid-cols-[375px_1fr] max-desk:block max-desk:overflow-auto">
      <section
        aria-label="What the law leaves open"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink px-4 pb-6"
      >
        <Decisions />
      </section>
      <div className="grid min-h-0 grid-rows-[1fr_auto] max-desk:block">
        <section aria-label="Only lines that differ" tabIndex={0} className="min-h-0 overflow-auto bg-sheet">
          <Compared shown={now} choose={choose} />
          <Why />
          <Ranking shown={now} choose={choose} />
        </section>
        <div className="grid h-[244px] grid-cols-[1fr_317px] border-t border-ink bg-sheet max-desk:block max-desk:h-auto">
          <Curve over={over} />
          <section
            aria-label="Lost to limits"
            tabIndex={0}
            className="min-h-0 overflow-auto border-l border-rule px-4 py-3"
          >
            <h2 className="mb-1">Lost to limits, and the nearest edge</h2>
            <LostList />
          </section>
        </div>
      </div>
    </div>
  );
}

/** Why the chosen way, in sentences made from the figures. */
function Why() {
  const { why } = useComparison().compared;
  if (why.length === 0) return null;
  return (
    <section aria-label="Why this way" className="border-b border-rule px-3 py-2">
      <b>Why this way</b> {why.join(" ")}
    </section>
  );
}
