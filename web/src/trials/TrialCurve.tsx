// The lowest tax along the amount that a trial changes, with the amount of the return, that of the trial, and where the best way turns.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Trial } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { capital, units } from "../ui/format";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [320, 172, 44, 40, 12];

/** How many turns are told. */
const MOST_TURNS = 4;

export function TrialCurve({ along }: { along: NonNullable<Trial["along"]> }) {
  const { opened } = useDesk();
  const query = { paper: along.paper, row: along.row ?? undefined, field: along.field };
  const asked = useQuery({
    queryKey: ["curve", opened.id, opened.revision, query.paper, query.row, query.field],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/curve", { params: { path: { id: opened.id }, query }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const curve = asked.data;
  if (!curve || curve.points.length < 2) return null;
  const most = Math.max(Number(curve.points.at(-1)?.amount ?? 1), Number(along.was), Number(along.now));
  const totals = curve.points.map((point) => Number(point.total));
  const [low, high] = [Math.min(...totals), Math.max(...totals)];
  const x = (amount: number) => LEFT + ((WIDTH - LEFT - 8) * amount) / most;
  const y = (total: number) => TOP + ((HEIGHT - TOP - BOTTOM) * (high - total)) / Math.max(1, high - low);
  const path = curve.points.map(
    (point, i) =>
      `${i === 0 ? "M" : "L"}${x(Number(point.amount)).toFixed(1)} ${y(Number(point.total)).toFixed(1)}`,
  );
  const turns = curve.turns.slice(0, MOST_TURNS);
  const { name, was, now } = along;
  const label = `Lowest tax along ${name}, from ${units(String(high))} to ${units(String(low))}: return at ${units(was)}, trial at ${units(now)}`;
  return (
    <section className="border-t border-rule pt-2">
      <h3>{name}</h3>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label={label}>
        {[low, high].map((total) => (
          <g key={total}>
            <path d={`M${LEFT} ${y(total)}H${WIDTH - 8}`} className="stroke-rule" />
            <text x={LEFT - 5} y={y(total) + 4} textAnchor="end" className="fill-soft text-[12px]">
              {units(String(total))}
            </text>
          </g>
        ))}
        {turns.map((turn) => (
          <path
            key={turn.decision + turn.amount}
            d={`M${x(Number(turn.amount))} ${TOP}V${HEIGHT - BOTTOM}`}
            className="stroke-ochre"
            strokeDasharray="3 3"
          />
        ))}
        <path d={path.join("")} className="fill-none stroke-plum stroke-2" />
        <Marked at={x(Number(was))} words={`return ${units(was)}`} tone="plum" row={0} />
        <Marked at={x(Number(now))} words={`trial ${units(now)}`} tone="petrol" row={1} />
      </svg>
      {turns.map((turn) => (
        <p key={turn.decision + turn.amount} className="py-0.5">
          {capital(turn.label)}: {turn.from} below <b className="text-ochre">{units(turn.amount)}</b>,{" "}
          {turn.to} from there on.
        </p>
      ))}
    </section>
  );
}

const TONES = { plum: ["stroke-plum", "fill-plum"], petrol: ["stroke-petrol", "fill-petrol"] } as const;

type MarkedProps = { at: number; words: string; tone: keyof typeof TONES; row: number };

/** An amount on the axis; its words stand to the side where there is room. */
function Marked({ at, words, tone, row }: MarkedProps) {
  const [stroke, fill] = TONES[tone];
  const left = at > WIDTH / 2;
  return (
    <>
      <path d={`M${at} ${TOP}V${HEIGHT - BOTTOM}`} className={`${stroke} stroke-2`} />
      <text
        x={at + (left ? -4 : 4)}
        y={HEIGHT - BOTTOM + 15 + 15 * row}
        textAnchor={left ? "end" : "start"}
        className={`${fill} text-[12px] font-bold`}
      >
        {words}
      </text>
    </>
  );
}
