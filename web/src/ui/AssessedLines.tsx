// Lines that an authority has otherwise than they are here, with the totals below them.
import type { AssessedLine } from "../api/types";
import { precise } from "./format";

export type AssessedTotal = {
  what: string;
  filed: string;
  assessed: string;
  told: (amount: string) => string;
};

export function AssessedLines({
  ours,
  lines,
  totals,
}: {
  /** What ours are called: "filed". */
  ours: string;
  lines: AssessedLine[];
  totals: AssessedTotal[];
}) {
  return (
    <table className="w-full">
      <thead>
        <tr className="text-soft">
          <th scope="col" className="text-left font-normal">
            Line
          </th>
          <th scope="col" className="w-28 text-right font-normal">
            {ours}
          </th>
          <th scope="col" className="w-28 text-right font-normal">
            assessed
          </th>
          <th scope="col" className="w-24 text-right font-normal">
            differs
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={`${line.line} ${line.scope}`} className="row-line h-[27px]">
            <th scope="row" className="text-left font-normal">
              <b className="text-soft">{[line.form, line.number].filter(Boolean).join(" ")}</b> {line.title}
            </th>
            <td className="text-right">{line.filed ? precise(line.filed) : ""}</td>
            <td className="text-right">{line.assessed ? precise(line.assessed) : ""}</td>
            <td className="text-right">{apartBy(line.filed, line.assessed)}</td>
          </tr>
        ))}
        {totals.map(({ what, filed, assessed, told }) => (
          <tr key={what} className="h-[27px] border-b border-ink font-bold">
            <th scope="row" className="text-left">
              {what}
            </th>
            <td className="text-right">{told(filed)}</td>
            <td className="text-right">{told(assessed)}</td>
            <td className="text-right">{apartBy(filed, assessed)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What was assessed less what is here, to the cent. */
function apartBy(filed: string | null | undefined, assessed: string | null | undefined) {
  const apart = (Number(assessed ?? 0) - Number(filed ?? 0)).toFixed(2);
  return Number(apart) > 0 ? `+${precise(apart)}` : precise(apart);
}

/** A balance to the cent, in words. */
export function exactBalance(amount: string) {
  const value = Number(amount);
  if (value === 0) return "even";
  return `${precise(String(Math.abs(value)))} ${value > 0 ? "due" : "back"}`;
}
