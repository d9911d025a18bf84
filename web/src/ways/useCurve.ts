// The tax along one box, and where decisions turn on the way. The last box that was marked is the first choice.
import { useQuery } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { api, ask } from "../api/client";
import type { Field, Paper } from "../api/types";
import { useDesk } from "../desk/useDesk";

export type Along = { paper: Paper; field: Field; amount: string; name: string };

/** The last amount box that somebody was in, and what was chosen since, by household. */
const last = new Map<string, string>();
const listeners = new Set<() => void>();

/** A box was marked: the curve is drawn along it. */
export function markBox(household: string, paper: string, field: string) {
  last.set(household, `${paper} ${field}`);
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Every box with an amount: those that stand for their paper first, the largest first. */
function useAmounts(): Along[] {
  const { opened, pack } = useDesk();
  const papers = opened.household.papers ?? [];
  const all = papers.flatMap((paper) => {
    const boxes = pack.paper_kinds.find((k) => k.id === paper.kind)?.boxes ?? [];
    const filled = boxes.filter((f) => f.kind.type === "amount" && Number(paper.boxes?.[f.id] ?? 0) !== 0);
    return filled.map((field) => ({
      paper,
      field,
      amount: String(paper.boxes?.[field.id]),
      name: `box ${field.number || field.label} of ${paper.kind} ${paper.title ?? ""}`.trim(),
    }));
  });
  const main = ({ paper, field }: Along) =>
    pack.paper_kinds.find((k) => k.id === paper.kind)?.headline === field.id ? 1 : 0;
  return all.sort((a, b) => main(b) - main(a) || Number(b.amount) - Number(a.amount));
}

export function useCurve() {
  const { opened } = useDesk();
  const amounts = useAmounts();
  const marked = useSyncExternalStore(subscribe, () => last.get(opened.id));
  const along = amounts.find((a) => `${a.paper.id} ${a.field.id}` === marked) ?? amounts[0];
  const query = { paper: along?.paper.id ?? "", field: along?.field.id };
  const asked = useQuery({
    queryKey: ["curve", opened.id, opened.revision, query.paper, query.field],
    enabled: along !== undefined,
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/curve", { params: { path: { id: opened.id }, query }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return { amounts, along, curve: asked.data, isPending: asked.isPending };
}
