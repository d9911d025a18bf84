// The tax on the next hundred along the largest income of the household.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { CurvePoint } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { units } from "../ui/format";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [560, 190, 44, 22, 14];

/** The paper with boxes whose main amount is the largest. */
function useLargest() {
  const { opened, pack } = useDesk();
  const { household, outcome } = opened;
  const largest = [...outcome.papers].sort((a, b) => Number(b.amount) - Number(a.amount));
  for (const { paper, amount } of largest) {
    const found = household.papers?.find((p) => p.id === paper);
    const kind = pack.paper_kinds.find((k) => k.id === found?.kind);
    const field = kind?.boxes.find((f) => f.id === kind.headline);
    if (found && field) return { paper: found, field, amount };
  }
  return null;
}

export function Curve() {
  const { opened } = useDesk();
  const largest = useLargest();
  const query = { paper: largest?.paper.id ?? "", field: largest?.field.id };
  const curve = useQuery({
    queryKey: ["curve", opened.id, opened.revision, query.paper],
    enabled: largest !== null,
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/curve", { params: { path: { id: opened.id }, query }, signal })),
  });
  if (!largest) {
    return (
      <section aria-label="Tax on the next hundred" className="px-4 py-3">
        <h2>If the income were another</h2>
        <p className="text-soft">The tax on the next hundred is drawn as soon as a paper brings an amount.</p>
      </section>
    );
  }
  return (
    <section aria-label="Tax on the next hundred" className="min-w-0 px-4 py-3">
      <h2>
        If box {largest.field.number || largest.field.label} of {largest.paper.kind} {largest.paper.title}{" "}
        were another <span className="font-normal">— tax on the next 100</span>
      </h2>
      {curve.data && curve.data.length > 1 ? (
        <Steps points={curve.data} now={Number(largest.amount)} />
      ) : (
        <p className="text-soft">
          {curve.isPending ? "Weighing the ways at a hundred amounts…" : "The curve cannot be drawn."}
        </p>
      )}
    </section>
  );
}

function Steps({ points, now }: { points: CurvePoint[]; now: number }) {
  const most = Number(points.at(-1)?.amount ?? 1);
  const rates = points.map((p) => Number(p.next_hundred));
  const [low, high] = [Math.min(0, ...rates), Math.max(40, ...rates)];
  const [floor, ceiling] = [Math.floor(low / 20) * 20, Math.ceil(high / 20) * 20];
  const x = (amount: number) => LEFT + ((WIDTH - LEFT - 8) * amount) / most;
  const y = (rate: number) => TOP + ((HEIGHT - TOP - BOTTOM) * (ceiling - rate)) / (ceiling - floor);
  const path = points.map(
    (p, i) =>
      `${i === 0 ? "M" : "H"}${x(Number(p.amount)).toFixed(1)} ${i === 0 ? "" : "V"}${i === 0 ? y(rates[0] ?? 0).toFixed(1) : y(rates[i] ?? 0).toFixed(1)}`,
  );
  const lines = Array.from({ length: (ceiling - floor) / 20 + 1 }, (_, i) => floor + 20 * i);
  const label = `Tax on the next hundred from 0 to ${units(String(most))}; now at ${units(String(now))}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="mt-1 h-[196px] w-full" role="img" aria-label={label}>
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
      <path d={path.join("")} className="fill-none stroke-plum stroke-2" />
      <path d={`M${x(now)} ${TOP}V${HEIGHT - BOTTOM}`} className="stroke-petrol stroke-2" />
      <text x={x(now) + 5} y={TOP + 9} className="fill-petrol text-[12px] font-bold">
        now {units(String(now))}
      </text>
    </svg>
  );
}
