// The lowest ways along the bottom of the Spread.
import { Link } from "@tanstack/react-router";
import type { NamedWay } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count, difference, isZero, units } from "../ui/format";
import { Key, Meter } from "../ui/pieces";
import { named, ties, useComparison } from "../ways/useComparison";
import { useWithin } from "../ways/within";

const SHOWN = 4;

export function WaysStrip() {
  const { opened } = useDesk();
  const { outcome } = opened;
  // The ways at the ends of an amount are priced apart where that is much work.
  const apart = outcome.decisions.some((d) => d.arises && d.amount && !d.amount.none);
  const ways = ties(useComparison(apart).ways, useWithin())
    .map((tie) => tie.first)
    .slice(0, SHOWN);
  const dearest = Math.max(...ways.map((w) => Math.abs(Number(w.total))), 1);
  const pinned = Object.keys(opened.household.pins ?? {}).length;
  const more = outcome.holding_ways - ways.length;
  const cost = Number(outcome.total) - Number(outcome.lowest);
  if (!outcome.covered) return <NoResult />;
  return (
    <section
      aria-label="Ways to file"
      className="grid min-h-[80px] grid-cols-[150px_repeat(4,1fr)_120px] border-t border-ink max-desk:flex max-desk:min-h-0"
    >
      <div className="border-r border-rule px-3.5 py-2 max-desk:hidden">
        <h2>Ways to file</h2>
        <p className="text-[12px] text-soft">
          {count(outcome.lawful_ways, "way")} lawful, {outcome.complete ? "all weighed" : "not all weighed"}
          {pinned > 0 && (
            <span className="block text-ochre">
              {count(pinned, "pin")} held{cost > 0 ? `, costs ${units(String(cost))}` : ""}
            </span>
          )}
        </p>
      </div>
      {ways.map((way, i) => (
        <Way
          key={way.name + way.total}
          way={way}
          first={i === 0}
          dearest={dearest}
          lowest={cost === 0}
          complete={outcome.complete}
        />
      ))}
      {Array.from({ length: SHOWN - ways.length }, (_, i) => (
        <div key={i} className="border-r border-rule max-desk:hidden" />
      ))}
      <div className="px-3.5 py-2 max-desk:flex max-desk:items-center max-desk:gap-2 max-desk:py-0.5">
        {more > 0 && <b className="whitespace-nowrap">{more} more</b>}
        <Link
          to="/h/$id/ways"
          params={{ id: opened.id }}
          search={{}}
          className="block text-[12px] whitespace-nowrap text-petrol underline"
        >
          open Ways
        </Link>
        <span className="max-desk:hidden">
          <Key>W</Key>
        </span>
      </div>
    </section>
  );
}

/** What is not computed could be mistaken for a tax. */
function NoResult() {
  return (
    <section
      aria-label="Ways to file"
      className="flex min-h-[80px] items-center max-desk:min-h-0 max-desk:py-1 border-t border-ink px-3.5 text-soft"
    >
      No tax is shown: something is not known or not computed. The open points name it.
    </section>
  );
}

function Way({
  way,
  first,
  dearest,
  lowest,
  complete,
}: {
  way: NamedWay;
  first: boolean;
  dearest: number;
  lowest: boolean;
  complete: boolean;
}) {
  const tone = first ? "bg-petrol text-white" : "bg-sheet";
  const told = first
    ? `${complete ? "Lowest" : "Lowest found"}${lowest ? "" : " with the pins"} · total tax`
    : isZero(way.more)
      ? "the same"
      : difference(way.more);
  return (
    <div
      className={`flex min-w-0 flex-col border-r border-rule px-3.5 py-2 max-desk:flex-1 max-desk:flex-row max-desk:items-baseline max-desk:gap-2 max-desk:py-1 ${tone} ${first ? "" : "max-desk:hidden"}`}
    >
      <span className={`text-[12px] whitespace-nowrap ${first ? "text-white/90" : "text-soft"}`}>{told}</span>
      <b className="text-[17px] leading-tight" style={{ fontStretch: "110%" }}>
        {units(way.total)}
      </b>
      <span className="text-[12px] leading-tight max-desk:truncate" title={way.name}>
        {named(way)}
      </span>
      <span className="mt-auto pt-1.5 max-desk:hidden">
        <Meter
          part={Math.abs(Number(way.total))}
          whole={dearest}
          label={`${units(way.total)} total tax`}
          tone={first ? "bg-white" : "bg-plum"}
        />
      </span>
    </div>
  );
}
