// The forms beside those of last year, of another way, or of what the authority has: the amount of the same line there.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { FormRow, NamedWay, ReturnSchedules } from "../api/types";
import { useDesk } from "../desk/useDesk";

/** What the forms stand beside: last year, what was filed or assessed, or another way by its place among the ways. */
export type Beside = "before" | "filed" | "assessed" | number | undefined;

/** The options of a way as the address has them. */
function wayOf(way: NamedWay | undefined) {
  return Object.entries(way?.options ?? {})
    .map(([decision, option]) => `${decision}=${option}`)
    .join(",");
}

export function useBeside(beside: Beside) {
  const { opened } = useDesk();
  const { id, revision } = opened;
  const way = typeof beside === "number" ? wayOf(opened.outcome.ways[beside]) : undefined;
  return useQuery({
    queryKey: ["schedules-beside", id, revision, beside],
    queryFn: ({ signal }) => {
      if (beside === "before") {
        return ask(api.GET("/api/households/{id}/schedules-before", { params: { path: { id } }, signal }));
      }
      if (beside === "filed" || beside === "assessed") {
        const params = { path: { id }, query: { assessed: beside === "assessed" } };
        return ask(api.GET("/api/households/{id}/schedules-filed", { params, signal }));
      }
      const params = { path: { id, revision }, query: { way } };
      return ask(api.GET("/api/households/{id}/revisions/{revision}/schedules", { params, signal }));
    },
    enabled: beside !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** The line of a return: its amount in each return that has it. */
function amounts(line: string, returns: ReturnSchedules[]) {
  return returns.flatMap((of) => {
    const row = of.forms.flatMap((form) => form.rows).find((r) => r.line === line && r.scope === of.scope);
    return row?.amount ? [row.amount] : [];
  });
}

/**
 * The amount of a line there: of a person's line that person's; of a return's line that of the same return, or, beside one
 * joint return, of all returns together. Nothing where the returns are not the same ones.
 */
export function amountThere(row: FormRow, here: ReturnSchedules[], there: ReturnSchedules[]) {
  if (!here.some((of) => of.scope === row.scope)) {
    const rows = there.flatMap((of) => of.forms.flatMap((form) => form.rows));
    return rows.find((r) => r.line === row.line && r.scope === row.scope)?.amount ?? undefined;
  }
  if (here.length > 1) {
    const same = there.length === here.length ? there.filter((of) => of.scope === row.scope) : [];
    return amounts(row.line, same)[0];
  }
  const all = amounts(row.line, there);
  return all.length === 0 ? undefined : all.reduce((sum, one) => String(Number(sum) + Number(one)));
}
