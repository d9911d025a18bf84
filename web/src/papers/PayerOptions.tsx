// The known payers as the list of a box: by name with their numbers beside them, or the other way round.
import type { Payer } from "../api/types";

type Props = { id: string; known: Payer[]; by: "name" | "number" };

export function PayerOptions({ id, known, by }: Props) {
  const shown = known.filter((payer) => payer[by] !== "");
  return (
    <datalist id={id}>
      {shown.map((payer) => (
        <option key={payer.id} value={payer[by]}>
          {by === "name" ? payer.number : payer.name}
        </option>
      ))}
    </datalist>
  );
}
