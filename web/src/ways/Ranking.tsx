// The lowest ways in their order; each may be put beside the chosen one, line by line.
import type { ReactNode } from "react";
import type { NamedWay } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count, difference, typedAmount, units } from "../ui/format";
import { Meter } from "../ui/pieces";
import { type Choosing, MOST_BESIDE, named, type Tie, ties, useComparison, written } from "./useComparison";
import { setWithin, useWithin } from "./within";

export function Ranking({ shown, choose }: Choosing) {
  const { opened } = useDesk();
  const { ways } = useComparison();
  const within = useWithin();
  const found = ties(ways, within);
  const { lawful_ways } = opened.outcome;
  const dearest = Math.max(...found.map((t) => Math.abs(Number(t.first.total))), 1);
  return (
    <div className="px-3.5 py-3">
      <div className="mb-1 flex items-baseline justify-between">
        <h2>
          {ways.length < lawful_ways
            ? `The lowest ${count(ways.length, "way")} of ${lawful_ways}`
            : `All ${count(ways.length, "way")}, lowest first`}
        </h2>
        <label className="text-[12px] text-soft">
          Equal within{" "}
          <input
            className="box w-16 py-0! text-right"
            inputMode="numeric"
            placeholder="0"
            defaultValue={within || ""}
            onBlur={(event) => setWithin(typedAmount(event.currentTarget.value))}
            onKeyDown={(event) => event.key === "Enter" && setWithin(typedAmount(event.currentTarget.value))}
          />
        </label>
      </div>
      <ol>
        {found.map((tie) => (
          <OneTie key={tie.rank} tie={tie} dearest={dearest}>
            {(way) => <Tick way={way} of={ways[0]} shown={shown} choose={choose} />}
          </OneTie>
        ))}
      </ol>
    </div>
  );
}

/** Whether a way stands beside the chosen one. */
function Tick({ way, of, shown, choose }: Choosing & { way: NamedWay; of: NamedWay | undefined }) {
  const key = written(way);
  if (of === undefined || key === written(of)) return null;
  const ticked = shown.ways.includes(key);
  const full = !ticked && shown.ways.length >= MOST_BESIDE;
  const next = ticked ? shown.ways.filter((other) => other !== key) : [...shown.ways, key];
  return (
    <input
      type="checkbox"
      checked={ticked}
      disabled={full}
      title={full ? "Three stand beside the chosen one at the most." : "Line by line beside the chosen one"}
      aria-label={`Beside: ${named(way)}`}
      onChange={() => choose({ ...shown, ways: next })}
    />
  );
}

type OneTieProps = { tie: Tie; dearest: number; children: (way: NamedWay) => ReactNode };

function OneTie({ tie, dearest, children }: OneTieProps) {
  const { first, rank, ways } = tie;
  return (
    <li className="row-line grid grid-cols-[1.1rem_2rem_minmax(9rem,1fr)_minmax(4rem,13rem)_6rem_5rem] items-baseline gap-x-2 py-1">
      <span>{children(first)}</span>
      <span className="text-soft">{rank}</span>
      <span>
        {named(first)}
        {ways.length > 1 && (
          <details className="inline-block align-top open:block">
            <summary className="ml-2 cursor-pointer text-[12px] text-soft">
              {ways.length} ways {ways.at(-1)?.total === first.total ? "tie" : "nearly tie"}
            </summary>
            <ul className="text-[12px] text-soft">
              {ways.map((way) => (
                <li key={way.name} className="py-1">
                  {way !== first && children(way)} {way.name}
                  {way.total !== first.total && ` · ${units(way.total)}`}
                </li>
              ))}
            </ul>
          </details>
        )}
      </span>
      <Meter
        part={Math.abs(Number(first.total))}
        whole={dearest}
        label={`${units(first.total)} total tax`}
        tone={rank === 1 ? "bg-petrol" : "bg-plum"}
      />
      <b className="text-right">{units(first.total)}</b>
      <span className="text-right">{rank === 1 ? "" : difference(first.more)}</span>
    </li>
  );
}
