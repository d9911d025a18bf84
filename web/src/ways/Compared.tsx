// Ways side by side, line by line: the lowest ones, or those that somebody chose.
import { useState } from "react";
import type { ComparedRow, ComparedWay, LaterRow } from "../api/types";
import { useDesk, words } from "../desk/useDesk";
import type { Standing } from "../router";
import { Trail } from "../trail/Trail";
import { balance, capital, decimal, difference, isZero, typedAmount, units } from "../ui/format";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { type Choosing, useBeside, written } from "./useComparison";

const STANDINGS: Record<ComparedWay["standing"], string> = {
  lowest: "lowest",
  held: "held",
  let_go: "lowest if let go",
  dearer: "",
  beside: "",
};

/** The trail of a figure, and the way in which it stands. */
type Opened = { at: Standing; way: string | undefined; name: string };

export function Compared({ shown, choose }: Choosing) {
  const { ways, rows, later, less_later } = useBeside(shown);
  const [opened, setOpened] = useState<Opened | null>(null);
  return (
    <>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-ink bg-paper">
            <th scope="col" className="px-3.5 pb-1 text-left align-bottom">
              {shown.allRows ? "All lines" : "Only lines that differ"}
              <span className="block font-normal">
                <Button tone="quiet" onClick={() => choose({ ...shown, allRows: !shown.allRows })}>
                  {shown.allRows ? "Only those that differ" : "All lines"}
                </Button>
                {shown.ways.length > 0 && (
                  <Button tone="quiet" onClick={() => choose({ ...shown, ways: [] })}>
                    The lowest beside
                  </Button>
                )}
              </span>
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
              className={`h-[25px] ${row.result ? "border-b border-ink font-bold" : "row-line"} ${row.same || row.beside ? "text-soft" : ""}`}
            >
              <th scope="row" className={`px-3.5 text-left ${row.result ? "" : "font-normal"}`}>
                {row.label}
              </th>
              {ways.map((way, i) => (
                <td
                  key={way.name + way.standing}
                  className={`px-2.5 text-right ${i === 0 ? "bg-[#eef6f8]" : ""} ${i === 0 && !row.same && !row.beside ? "font-semibold" : ""}`}
                >
                  <Figure row={row} column={i} way={way} open={setOpened} />
                </td>
              ))}
            </tr>
          ))}
          {later.map((row) => (
            <tr key={row.line} className="row-line h-[25px] text-soft">
              <th scope="row" className="px-3.5 text-left font-normal">
                Left to later years · {row.label} <Worth row={row} />
              </th>
              {ways.map((way, i) => (
                <td
                  key={way.name + way.standing}
                  className={`px-2.5 text-right ${i === 0 ? "bg-[#eef6f8]" : ""}`}
                >
                  {units(row.amounts[i] ?? "0")}
                </td>
              ))}
            </tr>
          ))}
          {less_later.length > 0 && (
            <tr className="h-[25px] border-b border-ink font-bold">
              <th scope="row" className="px-3.5 text-left">
                Total less what is left, at its worth to you
              </th>
              {ways.map((way, i) => (
                <td
                  key={way.name + way.standing}
                  className={`px-2.5 text-right ${i === 0 ? "bg-[#eef6f8]" : ""}`}
                >
                  {units(less_later[i] ?? "0")}
                </td>
              ))}
            </tr>
          )}
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

/** What a unit of what is left is worth to the preparer: it changes no tax, only what stands below it. */
function Worth({ row }: { row: LaterRow }) {
  const { edit, past } = useDesk();
  const [fault, setFault] = useState<string | null>(null);
  const said = row.worth ?? "";
  const keep = async (box: HTMLInputElement) => {
    const worth = typedAmount(box.value);
    if (worth === said) return;
    setFault(words(await edit([{ do: "set_worth", line: row.line, worth: worth || null }])));
  };
  return (
    <>
      <label className="ml-1 text-[12px] whitespace-nowrap">
        worth a unit{" "}
        <input
          className="box w-14 py-0! text-right"
          aria-label={`Worth of a unit of ${row.label}`}
          placeholder="0.00"
          inputMode="decimal"
          defaultValue={said && decimal(said)}
          key={said}
          readOnly={past}
          onBlur={(event) => void keep(event.currentTarget)}
          onKeyDown={(event) => {
            if (event.key === "Enter") void keep(event.currentTarget);
            if (event.key === "Escape") event.currentTarget.value = said && decimal(said);
          }}
        />
      </label>
      {fault && (
        <span role="alert" className="block text-[12px] text-ochre">
          {fault}
        </span>
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
  const scopes = (row.scopes[column] ?? []).join(",");
  return (
    <button
      type="button"
      className="hover:text-petrol hover:underline"
      aria-label={`${row.label}, ${way.but || way.name}: ${shown}`}
      onClick={() =>
        open({
          at: { line: row.line, scopes, trail: true },
          way: column === 0 ? undefined : written(way),
          name: way.but || way.name,
        })
      }
    >
      {shown}
    </button>
  );
}
