// A list of receipts: a line a receipt, the last one empty for the next.
import type { Entry, Field, Paper, PaperKind, Point } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../ui/EntryBox";
import { count, exact } from "../ui/format";
import { Button } from "../ui/pieces";
import { PointNote } from "./PaperForm";

type Props = {
  paper: Paper;
  kind: PaperKind;
  points: Point[];
  at: { field: string | undefined; row: number | undefined };
};

const WIDTHS: Partial<Record<Field["kind"]["type"], string>> = {
  date: "w-33",
  amount: "w-28",
  count: "w-20",
  person: "w-36",
  choice: "w-36",
};

export function Receipts({ paper, kind, points, at }: Props) {
  const { opened, edit } = useDesk();
  const rows = paper.rows ?? [];
  const amount = opened.outcome.papers.find((p) => p.paper === paper.id)?.amount ?? "0";
  // What a new line begins with is known only when its turn comes: a cell may still be on its way.
  const keep = (row: number, field: string) => (value: Entry | null) =>
    edit((now) => {
      const there = now.household.papers?.find((p) => p.id === paper.id)?.rows ?? [];
      if (row < there.length) return [{ do: "set_cell", paper: paper.id, row, field, value }];
      return value === null ? [] : [{ do: "add_row", paper: paper.id, row: { [field]: value } }];
    });
  return (
    <>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-ink text-left">
            {kind.columns.map((c) => (
              <th
                key={c.id}
                scope="col"
                className={`py-1 pr-1.5 ${WIDTHS[c.kind.type] ?? ""}`}
                title={c.help || undefined}
              >
                {c.label}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: rows.length + 1 }, (_, r) => (
            <tr key={r} className="row-line align-top">
              {kind.columns.map((column) => (
                <td key={column.id} className="py-0.5 pr-1.5">
                  <EntryBox
                    field={column}
                    label={`${column.label}, line ${r + 1}`}
                    value={rows[r]?.[column.id]}
                    people={opened.household.people}
                    focus={at.row === r && at.field === column.id}
                    keep={keep(r, column.id)}
                  />
                </td>
              ))}
              <td className="w-8 text-right">
                {r < rows.length && (
                  <Button
                    tone="quiet"
                    aria-label={`Remove line ${r + 1}`}
                    onClick={() => edit([{ do: "remove_row", paper: paper.id, row: r }])}
                  >
                    ×
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 flex justify-between">
        <span className="text-soft">
          {count(rows.length, "line")}. The last, empty one is for the next receipt.
        </span>
        <b className="pr-10">{exact(amount)}</b>
      </p>
      <div className="mt-3 grid grid-cols-2">
        {points.map((point) => (
          <PointNote key={point.id} point={point} />
        ))}
      </div>
    </>
  );
}
