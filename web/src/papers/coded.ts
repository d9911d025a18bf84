// A list with an amount under each code, its codes as boxes of their own: so it is issued, read and compared.
import type { Answers, Command, Entry, Field, Paper, PaperKind } from "../api/types";
import { field } from "../entry/field";

/** The columns of such a list; nothing of any other. */
function codes(kind: PaperKind) {
  const [code, amount, ...more] = kind.columns;
  if (code?.kind.type !== "choice" || amount?.kind.type !== "amount" || more.length > 0) return undefined;
  return { code: code.id, amount: amount.id, options: code.kind.options };
}

/** A box of a kind, or a code of its list as one. */
export function toldField(kind: PaperKind | undefined, id: string): Field | undefined {
  const box = kind?.boxes.find((one) => one.id === id);
  if (box || !kind) return box;
  const option = codes(kind)?.options.find((one) => one.id === id);
  return option && field(id, option.label, { type: "amount", negative: false });
}

/** What stands in a box, or under a code of a list. */
export function toldEntry(kind: PaperKind, paper: Paper | undefined, id: string): Entry | undefined {
  const of = codes(kind);
  if (!of || kind.boxes.some((one) => one.id === id)) return paper?.boxes?.[id];
  return paper?.rows?.find((row) => row[of.code] === id)?.[of.amount] as Entry | undefined;
}

/** The command that puts an entry into a box, or under a code of a list. */
export function putting(
  kind: PaperKind,
  paper: string,
  keyed: Paper | undefined,
  id: string,
  value: Entry,
): Command {
  const of = codes(kind);
  if (!of || kind.boxes.some((one) => one.id === id)) return { do: "set_box", paper, field: id, value };
  const row = keyed?.rows?.find((one) => one[of.code] === id);
  if (row?.id) return { do: "set_cell", paper, row: String(row.id), field: of.amount, value };
  return { do: "add_row", paper, row: { [of.code]: id, [of.amount]: value } as Answers };
}
