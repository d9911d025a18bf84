// The lowest ways along the bottom of the Spread.
import { Link } from "@tanstack/react-router";
import type { NamedWay } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count, difference, isZero, units } from "../ui/format";
import { Key, Meter } from "../ui/pieces";
import { useComparison } from "../ways/useComparison";

const SHOWN = 4;

export function WaysStrip() {
  const { opened } = useDesk();
  const { outcome } = opened;
  // The ways at the ends of an amount are priced apart where that is much work.
  const apart = outcome.decisions.some((d) => d.arises && d.amount && !d.amount.none);
  const ways = distinct(useComparison(apart).ways).slice(0, SHOWN);
  const dearest = Math.max(...ways.map((w) => Math.abs(Number(w.total))), 1);
  const pinned = Object.keys(opened.household.pins ?? {}).length;
  const more = outcome.holding_ways - ways.length;
  const cost = Number(outcome.total) - Number(outcome.lowest);
  if (!outcome.covered) return <NoResult />;
  return (
    <section
      aria-label="Ways to file"
      className="grid h-24 grid-cols-[150px_repeat(4,1fr)_120px] border-t border-ink"
    >
      <div className="border-r border-rule px-3.5 py-2">
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
        <div key={i} className="border-r border-rule" />
      ))}
      <div className="px-3.5 py-2">
        {more > 0 && <b>{more} more</b>}
        <Link
          to="/h/$id/ways"
          params={{ id: opened.id }}
          search={{}}
          className="block text-[12px] text-petrol underline"
        >
          open Ways
        </Link>
        <Key>W</Key>
      </div>
    </section>
  );
}

/** What is not computed could be mistaken for a tax. */
function NoResult() {
  return (
    <section
      aria-label="Ways to file"
      className="flex h-24 items-center border-t border-ink px-3.5 text-soft"
    >
      No tax is shown: something is not known or not computed. The open points name it.
    </section>
  );
}

/** Ways with the same total stand once, under the name of the first. */
function distinct(ways: NamedWay[]) {
  return ways.filter((way, i) => ways.findIndex((w) => w.total === way.total) === i);
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
    <div className={`flex min-w-0 flex-col border-r border-rule px-3.5 py-2 ${tone}`}>
      <span className={`text-[12px] ${first ? "text-white/90" : "text-soft"}`}>{told}</span>
      <b className="text-[17px] leading-tight" style={{ fontStretch: "110%" }}>
        {units(way.total)}
      </b>
      <span className="truncate text-[12px]" title={way.name}>
        {way.name}
      </span>
      <span className="mt-auto">
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
