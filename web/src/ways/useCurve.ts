// The tax along one box, and where decisions turn on the way. The last box that was marked is the first choice.
import { useQuery } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { api, ask } from "../api/client";
import type { Field, Paper, PaperKind, PaperRow } from "../api/types";
import { useDesk } from "../desk/useDesk";

export type Along = { paper: Paper; row?: PaperRow; field: Field; amount: string; name: string };

/** How many lines of a list are offered, the largest of them. */
const MOST_LINES = 12;

/** What tells an amount among those of its household. */
export function keyOf({ paper, row, field }: Along) {
  return [paper.id, field.id, row?.id].filter(Boolean).join(" ");
}

/** The last amount box that somebody was in, and what was chosen since, by household. */
const last = new Map<string, string>();
const listeners = new Set<() => void>();

/** An amount was marked: the curve is drawn along it. */
export function markAmount(household: string, key: string) {
  last.set(household, key);
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Every amount that decides something: those that stand for their paper first, the largest first. */
function useAmounts(): Along[] {
  const { opened, pack } = useDesk();
  const papers = opened.household.papers ?? [];
  const all = papers.flatMap((paper) => {
    const kind = pack.paper_kinds.find((k) => k.id === paper.kind);
    if (!kind) return [];
    const counts = (f: Field) => f.kind.type === "amount" && !f.compared;
    const of = `of ${paper.kind} ${paper.title ?? ""}`.trim();
    const filled = kind.boxes.filter((f) => counts(f) && Number(paper.boxes?.[f.id] ?? 0) !== 0);
    const boxes = filled.map((field) => ({
      paper,
      field,
      amount: String(paper.boxes?.[field.id]),
      name: `box ${field.number || field.label} ${of}`,
    }));
    return [...boxes, ...lines(paper, kind, counts).map((line) => ({ ...line, name: `${line.name} ${of}` }))];
  });
  const main = ({ paper, row, field }: Along) => {
    const kind = pack.paper_kinds.find((k) => k.id === paper.kind);
    const listed = row && kind?.boxes.find((f) => f.id === kind.headline)?.compared;
    return kind?.headline === field.id || listed ? 1 : 0;
  };
  return all.sort((a, b) => main(b) - main(a) || Number(b.amount) - Number(a.amount));
}

/** The amounts of a list, by the words of their line: the largest first. */
function lines(paper: Paper, kind: PaperKind, counts: (field: Field) => boolean): Along[] {
  const words = kind.columns.find((f) => f.kind.type === "choice" || f.kind.type === "text");
  const all = (paper.rows ?? []).flatMap((row) => {
    const word = String(row[words?.id ?? ""] ?? "");
    const told = words?.kind.type === "choice" ? words.kind.options.find((o) => o.id === word)?.label : word;
    const of = (field: Field) => ({
      paper,
      row,
      field,
      amount: String(row[field.id] ?? "0"),
      name: told || field.label.toLowerCase(),
    });
    return kind.columns.filter(counts).map(of);
  });
  const filled = all.filter((line) => Number(line.amount) !== 0);
  return filled.sort((a, b) => Number(b.amount) - Number(a.amount)).slice(0, MOST_LINES);
}

/** The curve along the amount that was marked, and that of another way over it where one is wanted. */
export function useCurve(way?: string) {
  const { opened } = useDesk();
  const amounts = useAmounts();
  const marked = useSyncExternalStore(subscribe, () => last.get(opened.id));
  const along = amounts.find((a) => keyOf(a) === marked) ?? amounts[0];
  const asked = useOne(along);
  const over = useOne(way ? along : undefined, way);
  return { amounts, along, curve: asked.data, over: over.data, isPending: asked.isPending };
}

function useOne(along: Along | undefined, way?: string) {
  const { opened } = useDesk();
  const query = { paper: along?.paper.id ?? "", row: along?.row?.id, field: along?.field.id, way };
  return useQuery({
    queryKey: ["curve", opened.id, opened.revision, query.paper, query.row, query.field, way],
    enabled: along !== undefined,
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/curve", { params: { path: { id: opened.id }, query }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}
