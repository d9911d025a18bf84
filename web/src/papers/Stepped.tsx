// The tax along steps that the rules lay out for a line: so many months without cover. Each step is reckoned, none is guessed.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { useDesk } from "../desk/useDesk";
import { exact } from "../ui/format";

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [640, 150, 70, 20, 30, 24];

export function Stepped({ paper, row }: { paper: string; row: string }) {
  const { opened } = useDesk();
  const params = { path: { id: opened.id }, query: { paper, row } };
  const { data } = useQuery({
    queryKey: ["steps", opened.id, opened.revision, paper, row],
    queryFn: () => ask(api.GET("/api/households/{id}/steps", { params })),
    placeholderData: (before, query) => (query?.queryKey[4] === row ? before : undefined),
  });
  if (!data || data.totals.length < 2) return null;
  const least = Math.min(...data.totals.map(Number));
  const more = data.totals.map((total) => Number(total) - least);
  const most = Math.max(...more, 1);
  const x = (step: number) => LEFT + ((WIDTH - LEFT - RIGHT) * step) / (more.length - 1);
  const y = (amount: number) => HEIGHT - BOTTOM - ((HEIGHT - BOTTOM - TOP) * amount) / most;
  const now = more[data.now] ?? 0;
  const said = (step: number, amount: number) => `${step}: ${exact(amount.toFixed(2))}`;
  const words = more.map((amount, step) => said(step, amount)).join("; ");
  // More months never cost less: the place above and to the left of a point is free.
  const left = data.now > 1;
  return (
    <figure className="mt-5">
      <figcaption className="text-soft">
        {data.title}: tax and penalty of all returns, more than the least
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full max-w-[760px]"
        role="img"
        aria-label={`${data.title}: ${words}`}
      >
        {[0, most].map((amount) => (
          <g key={amount}>
            <path d={`M${LEFT} ${y(amount)}H${WIDTH - RIGHT}`} className="stroke-rule" />
            <text x={LEFT - 8} y={y(amount) + 4} textAnchor="end" className="fill-soft text-[11.5px]">
              {exact(amount.toFixed(2))}
            </text>
          </g>
        ))}
        {more.map((_, step) => (
          <text key={step} x={x(step)} y={HEIGHT - 6} textAnchor="middle" className="fill-soft text-[11.5px]">
            {step}
          </text>
        ))}
        {data.marks.map(({ step, words }) => (
          <g key={step}>
            <path
              d={`M${x(step)} ${TOP - 14}V${HEIGHT - BOTTOM}`}
              className="stroke-ochre [stroke-dasharray:3_3]"
            />
            <text x={x(step) + 6} y={TOP - 16} className="fill-ochre text-[11.5px]">
              {words}
            </text>
          </g>
        ))}
        <path
          d={more.map((amount, step) => `${step === 0 ? "M" : "L"}${x(step)} ${y(amount)}`).join("")}
          className="fill-none stroke-plum stroke-2"
        />
        {more.map((amount, step) => (
          <circle
            key={step}
            cx={x(step)}
            cy={y(amount)}
            r={step === data.now ? 5 : 2.5}
            className={step === data.now ? "fill-petrol" : "fill-plum"}
          />
        ))}
        <text
          x={x(data.now) + (left ? -7 : 7)}
          y={Math.max(y(now) - 9, TOP - 2)}
          textAnchor={left ? "end" : "start"}
          className="fill-petrol text-[11.5px] font-bold"
        >
          now {said(data.now, now)}
        </text>
      </svg>
    </figure>
  );
}
