// An amount that the household chooses: the best, its ends, the tax along it, and a box to hold any other.
import type { AmountOutcome, Decision } from "../api/types";
import type { How, Refused } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { difference, isZero, precise, units } from "../ui/format";

type Props = {
  decision: Decision;
  amount: AmountOutcome;
  /** Holds an amount, or lets it go. */
  hold: (amount: string | null, how?: How) => Promise<Refused>;
};

export function AmountChoice({ decision, amount, hold }: Props) {
  if (!decision.arises) return <p className="pl-6 text-soft">Nothing to choose in the chosen way.</p>;
  const box = field(decision.id, decision.label, { type: "amount", negative: false });
  const ends = [
    { label: "None", at: "0.00", total: amount.none },
    { label: "All", at: amount.most, total: amount.all },
  ];
  const freed = decision.pinned && amount.free;
  return (
    <div className="pl-6">
      <p className="grid min-h-[25px] grid-cols-[1fr_auto_64px] items-center">
        <span>
          <span className="mr-2 inline-block size-[11px] border border-petrol bg-petrol align-[-1px]" />
          {decision.pinned ? "Held at" : "Best"} <b>{precise(amount.taken)}</b>{" "}
          <span className="text-soft">of {precise(amount.most)}</span>
        </span>
        {freed && <span>{units(freed)} if let go</span>}
      </p>
      {ends
        .filter((end) => !isZero(amount.most) && Number(end.at) !== Number(amount.taken))
        .map((end) => (
          <button
            key={end.label}
            type="button"
            aria-label={`Hold ${end.label.toLowerCase()} of it`}
            className="grid min-h-[25px] w-full grid-cols-[1fr_auto_64px] items-center text-left hover:bg-wash"
            onClick={() => void hold(end.at)}
          >
            <span>
              <span className="mr-2 inline-block size-[11px] border border-ink align-[-1px]" />
              {end.label}, {precise(end.at)}
            </span>
            <span>{end.total ? units(end.total) : ""}</span>
            <span className="text-right text-soft">
              {end.total && !isZero(less(end.total, amount.free))
                ? difference(less(end.total, amount.free))
                : ""}
            </span>
          </button>
        ))}
      <AlongAmount amount={amount} label={decision.label} />
      {(amount.curve ?? []).length > 1 && (
        <p className="pb-1 text-[12px] text-soft">
          The line leaves everything else as chosen; None and All choose the rest anew.
        </p>
      )}
      <div className="grid grid-cols-[1fr_8rem] items-center gap-x-2 pb-1">
        <span className="text-soft">Hold another amount</span>
        <EntryBox
          field={box}
          label={`Hold an amount of ${decision.label}`}
          value={decision.pinned ?? undefined}
          people={[]}
          keep={(value, how) => hold(value === null ? null : String(value), how)}
        />
      </div>
      {amount.never_costs && (
        <p className="text-[12px] text-soft">What would do nothing now is kept for later.</p>
      )}
    </div>
  );
}

function less(total: string, free: string | null | undefined) {
  return (Number(total) - Number(free ?? total)).toFixed(2);
}

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [320, 104, 44, 18, 10];

/** The household's tax along the amount, with every kink; everything else stands as chosen. */
function AlongAmount({ amount, label }: { amount: AmountOutcome; label: string }) {
  const points = (amount.curve ?? []).map((k) => ({ at: Number(k.amount), total: Number(k.total) }));
  const totals = points.map((p) => p.total);
  const [low, high] = [Math.min(...totals), Math.max(...totals)];
  const most = Number(amount.most);
  if (points.length < 2 || high - low < 1) return null;
  const x = (at: number) => LEFT + ((WIDTH - LEFT - 10) * at) / most;
  const y = (total: number) => TOP + ((HEIGHT - TOP - BOTTOM) * (high - total)) / (high - low);
  const path = points.map((p, i) => `${i === 0 ? "M" : "L"}${x(p.at).toFixed(1)} ${y(p.total).toFixed(1)}`);
  const here = points.reduce((a, b) =>
    Math.abs(b.at - Number(amount.taken)) < Math.abs(a.at - Number(amount.taken)) ? b : a,
  );
  const told = `${label}: tax from ${units(String(totals[0]))} at none to ${units(String(totals.at(-1)))} at all of it, ${points.length} kinks`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-[104px] w-full" role="img" aria-label={told}>
      {[high, low].map((total) => (
        <g key={total}>
          <path d={`M${LEFT} ${y(total)}H${WIDTH - 10}`} className="stroke-rule" />
          <text x={LEFT - 5} y={y(total) + 4} textAnchor="end" className="fill-soft text-[12px]">
            {units(String(total))}
          </text>
        </g>
      ))}
      <text x={LEFT} y={HEIGHT - 4} className="fill-soft text-[12px]">
        0
      </text>
      <text x={WIDTH - 10} y={HEIGHT - 4} textAnchor="end" className="fill-soft text-[12px]">
        {units(amount.most)}
      </text>
      <path d={path.join("")} className="fill-none stroke-plum stroke-2" />
      {points.map((p) => (
        <circle key={p.at} cx={x(p.at)} cy={y(p.total)} r="1.6" className="fill-plum" />
      ))}
      <path d={`M${x(Number(amount.taken))} ${TOP}V${HEIGHT - BOTTOM}`} className="stroke-petrol" />
      <circle cx={x(Number(amount.taken))} cy={y(here.total)} r="4" className="fill-petrol" />
    </svg>
  );
}
