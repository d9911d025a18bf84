// Ways: what the law leaves open, what each option costs, and where the lowest ways part.
import { useState } from "react";
import type { ComparedRow, ComparedWay } from "../api/types";
import { useDesk } from "../desk/useDesk";
import type { Standing } from "../router";
import { Trail } from "../trail/Trail";
import { balance, capital, count, difference, isZero, units } from "../ui/format";
import { Meter } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { Curve } from "./Curve";
import { Decisions } from "./Decisions";
import { LostList } from "./LostList";
import { named, type Tie, ties, useComparison } from "./useComparison";

export function WaysView() {
  return (
    <div className="grid h-full grid-cols-[375px_1fr] max-desk:block max-desk:overflow-auto">
      <section
        aria-label="What the law leaves open"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink px-4 pb-6"
      >
        <Decisions />
      </section>
      <div className="grid min-h-0 grid-rows-[1fr_auto] max-desk:block">
        <section aria-label="Only lines that differ" tabIndex={0} className="min-h-0 overflow-auto bg-sheet">
          <Compared />
          <Why />
          <Ranking />
        </section>
        <div className="grid h-[244px] grid-cols-[1fr_317px] border-t border-ink bg-sheet max-desk:block max-desk:h-auto">
          <Curve />
          <section
            aria-label="Lost to limits"
            tabIndex={0}
            className="min-h-0 overflow-auto border-l border-rule px-4 py-3"
          >
            <h2 className="mb-1">Lost to limits, and the nearest edge</h2>
            <LostList />
          </section>
        </div>
      </div>
    </div>
  );
}

/** Why the chosen way, in sentences made from the figures. */
function Why() {
  const { why } = useComparison().compared;
  if (why.length === 0) return null;
  return (
    <section aria-label="Why this way" className="border-b border-rule px-3 py-2">
      <b>Why this way</b> {why.join(" ")}
    </section>
  );
}

const STANDINGS: Record<ComparedWay["standing"], string> = {
  lowest: "lowest",
  held: "held",
  let_go: "lowest if let go",
  dearer: "",
};

/** The trail of a figure, and the way in which it stands. */
type Opened = { at: Standing; way: string | undefined; name: string };

function Compared() {
  const { compared } = useComparison();
  const [opened, setOpened] = useState<Opened | null>(null);
  const { ways, rows } = compared;
  return (
    <>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-ink bg-paper">
            <th scope="col" className="px-3.5 pb-1 text-left align-bottom">
              Only lines that differ
            </th>
            {ways.map((way, i) => (
              <th
                key={way.name + way.standing}
                scope="col"
                className={`max-w-56 px-2.5 pt-2 pb-1 text-right align-bottom ${i === 0 ? "bg-petrol text-white" : ""}`}
              >
                {STANDINGS[way.standing] || way.but}
                <span className="block text-[12px] font-normal">
                  {i === 0
                    ? way.name
                    : way.standing === "let_go"
                      ? `${way.but} · ${difference(way.more)}`
                      : difference(way.more)}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, r) => (
            <tr
              key={row.label + r}
              className={`h-[25px] ${row.result ? "border-b border-ink font-bold" : "row-line"} ${row.same ? "text-soft" : ""}`}
            >
              <th scope="row" className={`px-3.5 text-left ${row.result ? "" : "font-normal"}`}>
                {row.label}
              </th>
              {ways.map((way, i) => (
                <td
                  key={way.name + way.standing}
                  className={`px-2.5 text-right ${i === 0 ? "bg-[#eef6f8]" : ""} ${i === 0 && !row.same ? "font-semibold" : ""}`}
                >
                  <Figure row={row} column={i} way={way} open={setOpened} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {opened && (
        <Sheet
          title={capital(opened.name)}
          about="How the figure came to be in this way."
          onClose={() => setOpened(null)}
        >
          <Trail
            line={opened.at.line ?? ""}
            scopes={opened.at.scopes ?? ""}
            way={opened.way}
            stand={(at) => (at.trail ? setOpened({ ...opened, at }) : setOpened(null))}
          />
        </Sheet>
      )}
    </>
  );
}

type FigureProps = { row: ComparedRow; column: number; way: ComparedWay; open: (opened: Opened) => void };

function Figure({ row, column, way, open }: FigureProps) {
  const amount = row.amounts[column];
  if (amount === null || amount === undefined) return "·";
  const shown = row.balance
    ? balance(amount)
    : units(row.takes_off && !isZero(amount) ? `-${amount}`.replace("--", "") : amount);
  if (!row.line) return shown;
  const taken = Object.entries(way.options).map(([decision, option]) => `${decision}=${option}`);
  const scopes = (row.scopes[column] ?? []).join(",");
  return (
    <button
      type="button"
      className="hover:text-petrol hover:underline"
      aria-label={`${row.label}, ${way.but || way.name}: ${shown}`}
      onClick={() =>
        open({
          at: { line: row.line, scopes, trail: true },
          way: column === 0 ? undefined : taken.join(","),
          name: way.but || way.name,
        })
      }
    >
      {shown}
    </button>
  );
}

function Ranking() {
  const { opened } = useDesk();
  const { ways } = useComparison();
  const found = ties(ways);
  const { lawful_ways } = opened.outcome;
  const dearest = Math.max(...found.map((t) => Math.abs(Number(t.first.total))), 1);
  return (
    <div className="px-3.5 py-3">
      <h2 className="mb-1">
        {ways.length < lawful_ways
          ? `The lowest ${count(ways.length, "way")} of ${lawful_ways}`
          : `All ${count(ways.length, "way")}, lowest first`}
      </h2>
      <ol>
        {found.map((tie) => (
          <OneTie key={tie.rank} tie={tie} dearest={dearest} />
        ))}
      </ol>
    </div>
  );
}

function OneTie({ tie, dearest }: { tie: Tie; dearest: number }) {
  const { first, rank, ways } = tie;
  return (
    <li className="row-line grid grid-cols-[2rem_minmax(9rem,1fr)_minmax(4rem,13rem)_6rem_5rem] items-baseline gap-x-2 py-0.5">
      <span className="text-soft">{rank}</span>
      <span>
        {named(first)}
        {ways.length > 1 && (
          <details className="inline-block align-top open:block">
            <summary className="ml-2 cursor-pointer text-[12px] text-soft">{ways.length} ways tie</summary>
            <ul className="text-[12px] text-soft">
              {ways.map((way) => (
                <li key={way.name}>{way.name}</li>
              ))}
            </ul>
          </details>
        )}
      </span>
      <Meter
        part={Math.abs(Number(first.total))}
        whole={dearest}
        label={`${units(first.total)} total tax`}
        tone={rank === 1 ? "bg-petrol" : "bg-plum"}
      />
      <b className="text-right">{units(first.total)}</b>
      <span className="text-right">{rank === 1 ? "" : difference(first.more)}</span>
    </li>
  );
}
