// What proves a paper, whether it is at hand, and until when it is kept.
import type { Paper } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { dayOf } from "../ui/format";

export function Proof({ paper }: { paper: Paper }) {
  const { opened, pack, edit, past } = useDesk();
  const keeping = pack.keeping[String(opened.household.year)];
  return (
    <section>
      <h2 className="mb-1.5">Proof</h2>
      <p>{pack.proofs[paper.kind]}</p>
      <label className="mt-1 flex items-center gap-2">
        <input
          type="checkbox"
          checked={paper.proof === true}
          disabled={past}
          onChange={() => void edit([{ do: "set_paper", paper: paper.id, proof: !paper.proof }])}
        />
        It is at hand
      </label>
      {keeping?.until && (
        <p className="mt-1 text-[12px] text-soft">
          Kept until {dayOf(keeping.until)} · {keeping.cite}
        </p>
      )}
    </section>
  );
}
