// The curve as a table: where the tax on the next hundred changes, and where a decision turns; all of its points as CSV.
import type { CurvePoint, Turn } from "../api/types";
import { precise, units } from "../ui/format";

type Props = {
  points: CurvePoint[];
  turns: Turn[];
  name: string;
  /** Those of another way, where one lies over them. */
  over: CurvePoint[] | undefined;
  overName: string | undefined;
};

export function CurveTable({ points, turns, name, over, overName }: Props) {
  const others = over && new Map(over.map((point) => [point.amount, point.total]));
  const steps = points.filter((p, i) => i === 0 || p.next_hundred !== points[i - 1]?.next_hundred);
  const next = (at: number) => Number(steps[at + 1]?.amount ?? Number.POSITIVE_INFINITY);
  const turned = (step: CurvePoint, at: number) =>
    turns.filter((t) => Number(t.amount) >= Number(step.amount) && Number(t.amount) < next(at));
  return (
    <section className="mt-1 h-[190px] overflow-auto" aria-label="The curve as a table" tabIndex={0}>
      <table className="w-full">
        <thead>
          <tr className="text-soft">
            <th scope="col" className="text-left font-normal">
              From
            </th>
            <th scope="col" className="text-right font-normal">
              Total tax
            </th>
            <th scope="col" className="text-right font-normal">
              On the next 100
            </th>
            {others && (
              <th scope="col" className="text-right font-normal">
                Total, {overName}
              </th>
            )}
            <th scope="col" className="pl-4 text-left font-normal">
              What turns until the next
            </th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step, at) => (
            <tr key={step.amount} className="row-line">
              <th scope="row" className="text-left font-normal">
                {units(step.amount)}
              </th>
              <td className="text-right">{precise(step.total)}</td>
              <td className="text-right">{precise(step.next_hundred)}</td>
              {others && <td className="text-right">{told(others.get(step.amount))}</td>}
              <td className="pl-4 text-ochre">
                {turned(step, at)
                  .map((t) => `${t.to} from ${units(t.amount)}`)
                  .join("; ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <a
        className="mt-1 inline-block text-petrol underline underline-offset-2"
        download={`curve-${name.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-")}.csv`}
        href={`data:text/csv;charset=utf-8,${encodeURIComponent(csv(points, turns, others))}`}
      >
        All {points.length} points as CSV
      </a>
    </section>
  );
}

function told(total: string | undefined) {
  return total === undefined ? "not lawful" : precise(total);
}

/** Every point, with what turns up to it. Nothing in it begins with a sign that a table would take for a formula but minus amounts. */
function csv(points: CurvePoint[], turns: Turn[], others: Map<string, string> | undefined) {
  const cell = (words: string) => `"${words.replaceAll('"', '""')}"`;
  const rows = points.map((point, at) => {
    const before = Number(points[at - 1]?.amount ?? -1);
    const turned = turns.filter((t) => Number(t.amount) > before && Number(t.amount) <= Number(point.amount));
    const words = turned.map((t) => `${t.to} from ${t.amount}`).join("; ");
    const other = others ? [others.get(point.amount) ?? ""] : [];
    return [point.amount, point.total, point.next_hundred, ...other, cell(words)].join(",");
  });
  const other = others ? "total_tax_of_the_other_way," : "";
  return [`amount,total_tax,on_the_next_100,${other}turned`, ...rows, ""].join("\r\n");
}
