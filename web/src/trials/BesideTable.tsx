// The Spread of a trial: the return and the trial side by side, differences marked.
import type { BesideRow, Trial } from "../api/types";
import type { Standing } from "../router";
import { balance, difference, isZero, units } from "../ui/format";
import { Waiting } from "../ui/pieces";
import { useTrial } from "./useTrials";

type Props = { standing: Standing; stand: (search: Standing) => void };

export function BesideTable({ standing, stand }: Props) {
  const asked = useTrial();
  if (asked.error) return <p className="p-4">{asked.error.message}</p>;
  if (!asked.data) return <Waiting what="Laying the trial beside the return…" />;
  const { sections } = asked.data;
  const rows = sections.flatMap((section) => section.rows);
  const ends = rows.filter((row) => row.end).map((row) => row.label);
  return (
    <table className="w-full border-collapse">
      <thead className="sticky top-0 z-10 bg-paper">
        <tr className="border-b border-ink">
          <td />
          <Head name="Return" of={asked.data.was} />
          <Head name="Trial" of={asked.data.now} />
          <th scope="col" className="min-w-28 px-3 pt-2 pb-1.5 text-right align-bottom font-bold">
            Difference
          </th>
        </tr>
      </thead>
      {sections.map((section) => (
        <tbody key={section.title} className="bg-sheet">
          {section.rows.some((row) => !row.result) && (
            <tr className="row-line">
              <th
                scope="colgroup"
                colSpan={4}
                className="px-3.5 pt-1 pb-0.5 text-left text-[13.5px] font-bold text-plum"
              >
                {section.title}
              </th>
            </tr>
          )}
          {section.rows.map((row) => (
            <OneRow
              key={row.label}
              row={row}
              marked={standing.line === row.line}
              fromEnd={ends.length - 1 - ends.indexOf(row.label)}
              mark={() => stand({ line: row.line, scopes: row.scopes.join(",") })}
            />
          ))}
        </tbody>
      ))}
    </table>
  );
}

function Head({ name, of }: { name: string; of: Trial["was"] }) {
  return (
    <th scope="col" className="min-w-32 px-3 pt-2 pb-1.5 text-right align-bottom">
      <span className="block font-bold">{name}</span>
      <span className="ml-auto block max-w-60 text-[12px] font-normal text-soft">
        {of.covered ? of.way : `${of.way} · no result`}
      </span>
    </th>
  );
}

type RowProps = { row: BesideRow; marked: boolean; fromEnd: number; mark: () => void };

function OneRow({ row, marked, fromEnd, mark }: RowProps) {
  const differs = !isZero(row.difference) || row.counts !== row.counted;
  const ruled = row.end ? "font-bold" : row.result ? "border-b border-ink font-bold" : "row-line";
  const end = row.end ? { position: "sticky" as const, bottom: fromEnd * 25, zIndex: 5 } : undefined;
  const amount = (value: string | null | undefined, counts: boolean) => {
    if (!value) return "·";
    const plain = row.takes_off && !isZero(value) ? `−${units(value)}`.replace("−−", "") : units(value);
    const told = row.balance ? balance(value) : isZero(value) && !row.result ? "·" : plain;
    return counts ? told : <i className="text-soft">{told}</i>;
  };
  return (
    <tr className={`h-[25px] ${ruled} ${row.end ? "end-row bg-sheet" : ""}`} style={end}>
      <th scope="row" className={`px-3.5 text-left ${row.result || row.end ? "font-bold" : "font-normal"}`}>
        {row.label}
        {!row.counts && <span className="ml-2 text-[12px] text-soft italic">not taken</span>}
      </th>
      <td className="px-3 text-right">{amount(row.was, row.counted)}</td>
      <td className={`p-0 text-right ${differs ? "bg-wash" : ""}`}>
        <button
          type="button"
          aria-pressed={marked}
          disabled={row.scopes.length === 0}
          className={`block h-[25px] w-full px-3 text-right whitespace-nowrap ${marked ? "outline-2 -outline-offset-2 outline-petrol" : "hover:bg-wash"}`}
          onClick={mark}
        >
          {amount(row.now, row.counts)}
        </button>
      </td>
      <td className="px-3 text-right font-semibold whitespace-nowrap text-ochre">
        {isZero(row.difference) ? "" : difference(row.difference)}
      </td>
    </tr>
  );
}
