// What is shown of rule figures: which are wanted, which differ, how a figure is written.
import type { FigureTable } from "../api/types";

type Row = FigureTable["rows"][number];

/** Whether a year's figure differs from that of the year before it, which stands to its right. */
export function moved(row: Row, year: number): boolean {
  const before = row.values[year + 1];
  return year + 1 < row.values.length && row.values[year] !== before;
}

/** A figure of a year. */
export type Place = { year: number; table: string; figure: string };

/** Whether a replacement is of that figure. */
export function isAt(one: Place, at: Place): boolean {
  return one.year === at.year && one.table === at.table && one.figure === at.figure;
}

/**
 * The tables with those rows that hold every word of what is sought, in their own name or in that of the table or its
 * source, and of which `only` holds.
 */
export function wanted(
  tables: FigureTable[],
  sought: string,
  only: (table: FigureTable, row: Row) => boolean,
): FigureTable[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (text: string) => words.every((word) => text.toLowerCase().includes(word));
  return tables.flatMap((table) => {
    const about = [table.name, ...table.used_for, ...table.years.map((source) => source?.cite ?? "")].join(
      " ",
    );
    const rows = table.rows.filter(
      (row) =>
        holds([about, row.name, ...row.values.map((value) => figure(value))].join(" ")) && only(table, row),
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
