// Ways: what the law leaves open, what each option costs, and where the lowest ways part.
import { useDesk } from "../desk/useDesk";
import { balance, count, difference, isZero, units } from "../ui/format";
import { Curve } from "./Curve";
import { Decisions } from "./Decisions";
import { LostList } from "./LostList";
import { useComparison } from "./useComparison";

export function WaysView() {
  return (
    <div className="grid h-full grid-cols-[375px_1fr]">
      <section
        aria-label="What the law leaves open"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink px-4 pb-6"
      >
        <Decisions />
      </section>
      <div className="grid min-h-0 grid-rows-[1fr_236px]">
        <section aria-label="Only lines that differ" tabIndex={0} className="min-h-0 overflow-auto bg-sheet">
          <Compared />
          <Ranking />
        </section>
        <div className="grid grid-cols-[1fr_317px] border-t border-ink bg-sheet">
          <Curve />
          <section
            aria-label="Lost to limits"
            tabIndex={0}
            className="min-h-0 overflow-auto border-l border-rule px-4 py-3"
          >
            <h2 className="mb-1">Lost to limits in this way</h2>
            <LostList />
          </section>
        </div>
      </div>
    </div>
  );
}

function Compared() {
  const { compared, ways } = useComparison();
  const shown = ways.slice(0, compared[0]?.amounts.length ?? 0);
  const tone = (i: number) => (i === 0 ? "bg-[#eef6f8] font-semibold" : "");
  return (
    <table className="w-full border-collapse">
      <thead>
        <tr className="border-b border-ink bg-paper">
          <th scope="col" className="px-3.5 pb-1 text-left align-bottom">
            Only lines that differ
          </th>
          {shown.map((way, i) => (
            <th
              key={way.name}
              scope="col"
              className={`w-48 px-2.5 pt-2 pb-1 text-right ${i === 0 ? "bg-petrol text-white" : ""}`}
            >
              {way.name}
              <span className="block text-[12px] font-normal">
                {i === 0 ? "lowest" : isZero(way.more) ? "the same" : difference(way.more)}
              </span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {compared.map((row) => (
          <tr
            key={row.label}
            className={`h-[25px] ${row.result ? "border-b border-ink font-bold" : "row-line"}`}
          >
            <th scope="row" className={`px-3.5 text-left ${row.result ? "" : "font-normal"}`}>
              {row.label}
            </th>
            {row.amounts.map((amount, i) => (
              <td key={i} className={`px-2.5 text-right ${tone(i)}`}>
                {amount === null || amount === undefined
                  ? "·"
                  : row.balance
                    ? balance(amount)
                    : units(row.takes_off && !isZero(amount) ? `-${amount}` : amount)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Ranking() {
  const { opened } = useDesk();
  const { ways } = useComparison();
  const { lawful_ways } = opened.outcome;
  return (
    <div className="px-3.5 py-3">
      <h2 className="mb-1">
        The lowest {count(ways.length, "way")} of {lawful_ways}
      </h2>
      <ol>
        {ways.map((way, i) => (
          <li key={way.name + way.total} className="row-line grid grid-cols-[2rem_1fr_6rem_6rem] py-0.5">
            <span className="text-soft">{i + 1}</span>
            <span>{way.name}</span>
            <b className="text-right">{units(way.total)}</b>
            <span className="text-right">
              {i === 0 ? "" : isZero(way.more) ? "the same" : difference(way.more)}
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}
