// Ids and first contents of what is added to a household.
import type { Household, Paper, PaperKind, Share } from "../api/types";

/** A short id that nothing in the household carries yet. */
export function freshId(stem: string, taken: string[]): string {
  const plain =
    stem
      .toLowerCase()
      .replaceAll(/[^a-z0-9]+/g, "-")
      .replaceAll(/^-|-$/g, "") || "item";
  for (let n = 1; ; n++) {
    const id = n === 1 ? plain : `${plain}-${n}`;
    if (!taken.includes(id)) return id;
  }
}

/** Shares that add up to a hundred: one owner, or equal parts. */
export function equalShares(people: string[]): Share[] {
  const percent = (100 / people.length).toFixed(4).replace(/\.?0+$/, "");
  return people.map((person) => ({ person, percent }));
}

/** A paper by its kind and title. */
export function paperName({ kind, title }: Paper): string {
  return `${kind} ${title ?? ""}`.trim();
}

export function newPaper(kind: PaperKind, household: Household, owners: string[]): Paper {
  const taken = (household.papers ?? []).map((p) => p.id);
  return { id: freshId(kind.id, taken), kind: kind.id, title: "", owners: equalShares(owners) };
}
