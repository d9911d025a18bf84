// The tax on the next hundred along an amount of the household, and where decisions turn.
import { useState } from "react";
import type { CurvePoint, NamedWay, Outcome, Turn } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { ChoiceBox } from "../entry/ChoiceBox";
import { units } from "../ui/format";
import { Button } from "../ui/pieces";
import { CurveTable } from "./CurveTable";
import { named, written } from "./useComparison";
import { keyOf, markAmount, useCurve } from "./useCurve";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [560, 190, 44, 22, 14];

/** `over` is the way whose curve lies over that of the lowest ways. */
export function Curve({ over: way }: { over: NamedWay | undefined }) {
  const { opened } = useDesk();
  const { amounts, along, curve, over, isPending } = useCurve(way && optionsOf(way, opened.outcome));
  const [asTable, setAsTable] = useState(false);
  if (!along) {
    return (
      <section aria-label="Tax on the next hundred" className="px-4 py-3">
        <h2>If the income were another</h2>
        <p className="text-soft">The tax on the next hundred is drawn as soon as a paper brings an amount.</p>
      </section>
    );
  }
  const options = amounts.map((a) => ({ id: keyOf(a), label: a.name }));
  const choose = (value: string | null) => {
    if (value) markAmount(opened.id, value);
  };
  return (
    <section aria-label="Tax on the next hundred" className="min-w-0 px-4 py-2.5">
      <div className="flex items-center gap-2">
        <h2 className="whitespace-nowrap">Tax on the next 100, if this were another</h2>
        <span className="min-w-0 flex-1">
          <ChoiceBox
            options={options}
            value={keyOf(along)}
            keep={choose}
            refuse={() => {}}
            shared={{ "aria-label": "The amount of the curve" }}
          />
        </span>
        <Button tone="quiet" aria-pressed={asTable} onClick={() => setAsTable(!asTable)}>
          {asTable ? "Drawn" : "As a table"}
        </Button>
      </div>
      {curve && curve.points.length > 1 && asTable ? (
        <CurveTable
          points={curve.points}
          turns={curve.turns}
          name={along.name}
          over={over?.points}
          overName={way && named(way)}
        />
      ) : curve && curve.points.length > 1 ? (
        <Steps
          points={curve.points}
          turns={curve.turns}
          now={Number(along.amount)}
          over={over?.points ?? []}
          overName={way && named(way)}
        />
      ) : (
        <p className="text-soft">
          {isPending ? "Weighing the ways at a hundred amounts…" : "The curve cannot be drawn."}
        </p>
      )}
    </section>
  );
}

/** What a way takes of what is decided between options; its amounts are the best ones wherever the curve is. */
function optionsOf(way: NamedWay, outcome: Outcome) {
  const amounts = new Set(outcome.decisions.filter((d) => d.amount).map((d) => d.id));
  return written({
    options: Object.fromEntries(Object.entries(way.options).filter(([decision]) => !amounts.has(decision))),
  });
}

/** How many turns are marked, and in how many rows their words stand. */
const MOST_TURNS = 8;
const ROWS = 4;
const ROW_HEIGHT = 14;
/** About the width of a letter of their words. */
const LETTER = 6;

/** Where the words of each turn stand, so that none is written over another; without a row where there is no room. */
function inRows(turns: Turn[], x: (amount: number) => number) {
  const ends = Array.from({ length: ROWS }, () => 0);
  return turns.slice(0, MOST_TURNS).map((turn) => {
    const words = `${turn.to} from ${units(turn.amount)}`;
    const width = words.length * LETTER + 6;
    const at = x(Number(turn.amount));
    const left = at + 3 + width > WIDTH ? at - 3 - width : at + 3;
    const row = ends.findIndex((end) => end <= left);
    if (row >= 0) ends[row] = left + width;
    return { turn, words, at, left, row };
  });
}

type StepsProps = {
  points: CurvePoint[];
  turns: Turn[];
  now: number;
  over: CurvePoint[];
  overName: string | undefined;
};

function Steps({ points, turns, now, over, overName }: StepsProps) {
  const most = Number(points.at(-1)?.amount ?? 1);
  const rates = [...points, ...over].map((p) => Number(p.next_hundred));
  const [low, high] = [Math.min(0, ...rates), Math.max(40, ...rates)];
  const [floor, ceiling] = [Math.floor(low / 20) * 20, Math.ceil(high / 20) * 20];
  const x = (amount: number) => LEFT + ((WIDTH - LEFT - 8) * amount) / most;
  const y = (rate: number) => TOP + ((HEIGHT - TOP - BOTTOM) * (ceiling - rate)) / (ceiling - floor);
  const step = (p: CurvePoint, i: number) => {
    const [at, rate] = [x(Number(p.amount)).toFixed(1), y(Number(p.next_hundred)).toFixed(1)];
    return i === 0 ? `M${at} ${rate}` : `H${at} V${rate}`;
  };
  const lines = Array.from({ length: (ceiling - floor) / 20 + 1 }, (_, i) => floor + 20 * i);
  const and = overName && over.length > 1 ? `, and ${overName} over it` : "";
  const label = `Tax on the next hundred from 0 to ${units(String(most))}${and}; now at ${units(String(now))}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="mt-1 h-[190px] w-full" role="img" aria-label={label}>
      {lines.map((rate) => (
        <g key={rate}>
          <path d={`M${LEFT} ${y(rate)}H${WIDTH - 8}`} className="stroke-rule" />
          <text x={LEFT - 8} y={y(rate) + 4} textAnchor="end" className="fill-soft text-[12px]">
            {String(rate).replace("-", "−")} %
          </text>
        </g>
      ))}
      {[0, 0.25, 0.5, 0.75, 1].map((part) => (
        <text
          key={part}
          x={x(most * part)}
          y={HEIGHT - 6}
          textAnchor={part === 1 ? "end" : "middle"}
          className="fill-soft text-[12px]"
        >
          {units(String((most * part) / 1000))}k
        </text>
      ))}
      <path d={points.map(step).join("")} className="fill-none stroke-plum stroke-2" />
      {over.length > 1 && (
        <>
          <path
            d={over.map(step).join("")}
            className="fill-none stroke-soft stroke-[1.5]"
            strokeDasharray="5 3"
          />
          <text x={WIDTH - 8} y={TOP - 3} textAnchor="end" className="fill-soft text-[12px]">
            dashed: {overName}
          </text>
        </>
      )}
      {inRows(turns, x).map(({ turn, words, at, left, row }) => (
        <g key={turn.amount + turn.decision}>
          <path
            d={`M${at} ${HEIGHT - BOTTOM}v-${12 + Math.max(row, 0) * ROW_HEIGHT}`}
            className="stroke-ochre"
          />
          {row >= 0 && (
            <text x={left} y={HEIGHT - BOTTOM - 4 - row * ROW_HEIGHT} className="fill-ochre text-[12px]">
              {words}
            </text>
          )}
        </g>
      ))}
      <path d={`M${x(now)} ${TOP}V${HEIGHT - BOTTOM}`} className="stroke-petrol stroke-2" />
      <text x={x(now) + 5} y={TOP + 9} className="fill-petrol text-[12px] font-bold">
        now {units(String(now))}
      </text>
    </svg>
  );
}
