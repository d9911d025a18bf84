// What is shown of rule figures: which are wanted, which differ, how a figure is written.
import type { FigureTable } from "../api/types";

type Row = FigureTable["rows"][number];

/** Whether a year's figure differs from that of the year before it, which stands to its right. */
export function moved(row: Row, year: number): boolean {
  const before = row.values[year + 1];
  return year + 1 < row.values.length && row.values[year] !== before;
}

/** The tables with their rows that hold every word of what is sought: in their own name, or in that of the table or its source. */
export function wanted(tables: FigureTable[], sought: string, changed: boolean): FigureTable[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (text: string) => words.every((word) => text.toLowerCase().includes(word));
  return tables.flatMap((table) => {
    const about = [table.name, ...table.used_for, ...table.years.map((source) => source?.cite ?? "")].join(
      " ",
    );
    const rows = table.rows.filter(
      (row) =>
        holds([about, row.name, ...row.values.map((value) => figure(value))].join(" ")) &&
        (!changed || row.values.some((_, year) => moved(row, year))),
    );
    return rows.length > 0 ? [{ ...table, rows }] : [];
  });
}

/** A figure as people write it: thousands grouped, nothing where the year has none. */
export function figure(value: string | null | undefined): string {
  if (value === null || value === undefined) return "–";
  if (value === "true") return "yes";
  if (value === "false") return "no";
  return value
    .split(" · ")
    .map((part) => (/^\d{4,}(\.\d+)?$/.test(part) ? part.replace(/\B(?=(\d{3})+(?!\d))/g, ",") : part))
    .join(" · ");
}
