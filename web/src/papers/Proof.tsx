// What proves a paper or each line of its list, whether it is at hand, and until when it is kept.
import type { Outcome, Paper, PaperKind } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count, dayOf } from "../ui/format";

/** Whether the lines of a list are receipts, of which each has its own proof; those of a ledger that is worked out are none. */
export function hasProofs(paper: Paper, kind: PaperKind | undefined, outcome: Outcome) {
  const drawn = outcome.papers.find((one) => one.paper === paper.id)?.drawn;
  return !drawn && (kind?.columns.some((column) => column.kind.type === "amount") ?? false);
}

/** Whether what proves a line is at hand. */
export function isProven(paper: Paper, row: string) {
  return paper.proven?.[row] ?? paper.proof === true;
}

export function Proof({ paper }: { paper: Paper }) {
  const { opened, pack, edit, past } = useDesk();
  const rows = paper.rows ?? [];
  const proven = rows.filter((row) => isProven(paper, row.id ?? "")).length;
  const whole = rows.length > 0 ? proven === rows.length : paper.proof === true;
  const kind = pack.paper_kinds.find((one) => one.id === paper.kind);
  const byLine = rows.length > 0 && hasProofs(paper, kind, opened.outcome);
  const keeping = pack.keeping[String(opened.household.year)];
  return (
    <section>
      <h2 className="mb-1.5">Proof</h2>
      <p>{pack.proofs[paper.kind]}</p>
      <label className="mt-1 flex items-center gap-2">
        <input
          type="checkbox"
          checked={whole}
          disabled={past}
          onChange={() => void edit([{ do: "set_paper", paper: paper.id, proof: !whole }])}
        />
        It is at hand{byLine && ` for ${proven} of ${count(rows.length, "line")}`}
      </label>
      {keeping?.until && (
        <p className="mt-1 text-[12px] text-soft">
          Kept until {dayOf(keeping.until)} · {keeping.cite}
        </p>
      )}
    </section>
  );
}
