// A picture over the days: what holds from one day to the next, what grows, amounts of a day, and what is pointed out.
import type { Picture } from "../api/types";
import { dayOf, decimal } from "../ui/format";

const [WIDTH, HEIGHT, LEFT, RIGHT, BOTTOM] = [640, 230, 58, 16, 24];
/** Room above for what belongs together: the first by its name, and each further one a line below it. */
const [TOP, NAME] = [26, 17];
const DAY = 86_400_000;

/** A step that makes between three and six lines out of a range. */
function stepOf(range: number) {
  const rough = range / 4;
  const power = 10 ** Math.floor(Math.log10(rough));
  return [1, 2, 2.5, 5, 10].map((times) => times * power).find((step) => step >= rough) ?? rough;
}

/** The values that are ruled: from zero, but where all of them lie close together. */
function ruled(values: number[]) {
  const [low, high] = [Math.min(...values), Math.max(...values, 0.01)];
  const close = low > 0.8 * high && low < high;
  const [from, to] = close ? [low - (high - low) / 4, high + (high - low) / 4] : [0, high * 1.04];
  const step = stepOf(to - from);
  const floor = Math.floor(from / step) * step;
  return Array.from({ length: Math.ceil((to - floor) / step) + 1 }, (_, i) => floor + i * step);
}

/** The days that are named below: the years, or the months where it is about few. */
function named(from: number, to: number) {
  const years = to - from > 700 * DAY;
  const [first, last] = [new Date(from), new Date(to)];
  const days: { at: number; label: string }[] = [];
  for (let year = first.getUTCFullYear(); year <= last.getUTCFullYear(); year += 1) {
    for (const month of years ? [0] : [0, 3, 6, 9]) {
      const at = Date.UTC(year, month, 1);
      const label = years || month === 0 ? String(year) : ["", "Apr", "Jul", "Oct"][month / 3];
      if (at >= from && at <= to) days.push({ at, label: label ?? "" });
    }
  }
  return days;
}

/** Where words stand beside their place: on its other side at the right edge. */
function words(at: number) {
  return at > WIDTH - 130 ? { x: at - 7, textAnchor: "end" as const } : { x: at + 7 };
}

export function DrawnPicture({ picture }: { picture: Picture }) {
  const { steps, slope, bars, marks, spans, caption } = picture;
  const all = [...steps, ...slope, ...bars, ...marks];
  const days = [...all.map(({ day }) => day), ...spans.flatMap(({ from, to }) => [from, to])].map((day) =>
    Date.parse(day),
  );
  const top = TOP + NAME * Math.max(0, spans.length - 1);
  const [first, last] = [Math.min(...days), Math.max(...days)];
  const room = Math.max(20 * DAY, (last - first) * 0.04);
  const [from, to] = [first - room, last + room];
  const lines = ruled(all.map(({ value }) => Number(value)));
  const [floor, ceiling] = [lines[0] ?? 0, lines.at(-1) ?? 1];
  const x = (day: string | number) => {
    const at = typeof day === "number" ? day : Date.parse(day);
    return LEFT + ((WIDTH - LEFT - RIGHT) * (at - from)) / (to - from);
  };
  const y = (value: string | number) =>
    HEIGHT - BOTTOM - ((HEIGHT - BOTTOM - top) * (Number(value) - floor)) / (ceiling - floor);
  /** Where it grows from a day on its words stand below, out of the line's way. */
  const rises = (day: string) =>
    slope.some((at, i) => at.day === day && Number(slope[i + 1]?.value) > Number(at.value));
  const stepped = steps.map(({ day, value }, i) =>
    i === 0 ? `M${x(day)} ${y(value)}` : `H${x(day)}V${y(value)}`,
  );
  return (
    <figure className="mt-5">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label={caption}>
        {spans.map((span, i) => (
          <g key={span.to}>
            <rect
              x={x(span.from)}
              y={TOP - 18 + NAME * i}
              width={Math.max(2, x(span.to) - x(span.from))}
              height={HEIGHT - BOTTOM - TOP + 18 - NAME * i}
              className="fill-petrol/12"
            />
            <text x={x(span.from) + 5} y={TOP - 6 + NAME * i} className="fill-petrol text-[11.5px] font-bold">
              {span.label}
            </text>
          </g>
        ))}
        {lines.map((line) => (
          <g key={line}>
            <path d={`M${LEFT} ${y(line)}H${WIDTH - RIGHT}`} className="stroke-rule" />
            <text x={LEFT - 8} y={y(line) + 4} textAnchor="end" className="fill-soft text-[11.5px]">
              {decimal(line.toFixed(4))}
            </text>
          </g>
        ))}
        {named(from, to).map(({ at, label }) => (
          <text key={at} x={x(at)} y={HEIGHT - 7} textAnchor="middle" className="fill-soft text-[11.5px]">
            {label}
          </text>
        ))}
        {bars.map(({ day, value, counts }, i) => (
          <path
            key={i}
            d={`M${x(day)} ${y(0)}V${y(value)}`}
            className={counts ? "stroke-petrol stroke-[5px]" : "stroke-soft/60 stroke-[5px]"}
          />
        ))}
        {steps.length > 0 && (
          <path d={`${stepped.join("")}H${x(to)}`} className="fill-none stroke-plum stroke-2" />
        )}
        {slope.length > 0 && (
          <path
            d={slope.map(({ day, value }, i) => `${i === 0 ? "M" : "L"}${x(day)} ${y(value)}`).join("")}
            className="fill-none stroke-plum stroke-2"
          />
        )}
        {[...steps, ...slope].map(({ day, value, label }, i) => (
          <g key={i}>
            <circle cx={x(day)} cy={y(value)} r={3.5} className="fill-plum" />
            {label && (
              <text
                {...words(x(day))}
                y={y(value) + (rises(day) ? 16 : -8)}
                className="fill-ink text-[11.5px]"
              >
                {label}
              </text>
            )}
          </g>
        ))}
        {marks.map(({ day, value, label }, i) => (
          <g key={i}>
            <path d={`M${x(day)} ${y(value) - 5}l5 5l-5 5l-5 -5Z`} className="fill-petrol" />
            <text {...words(x(day))} y={y(value) + 16} className="fill-petrol text-[11.5px] font-bold">
              {label}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="text-soft">
        {caption} {all.length > 0 && first < last && `${dayOf(isoOf(first))} to ${dayOf(isoOf(last))}.`}
      </figcaption>
    </figure>
  );
}

function isoOf(at: number) {
  return new Date(at).toISOString().slice(0, 10);
}
