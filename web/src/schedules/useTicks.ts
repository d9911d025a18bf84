// Lines of the forms that somebody read and found right, at the amount that they had.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { FormRow, Tick } from "../api/types";
import { useDesk } from "../desk/useDesk";

export type Ticked = {
  /** The tick of a line, if it still has the amount at which it was ticked. */
  of: (row: FormRow) => Tick | undefined;
  /** The tick of a line that has another amount by now. */
  stale: (row: FormRow) => Tick | undefined;
  set: (rows: FormRow[], right: boolean) => void;
  error: Error | null;
};

/** Whether there is something to find right: an amount, or a result of none. */
export function isToTick({ amount, result }: FormRow) {
  return Boolean(amount) && (result || Number(amount) !== 0);
}

export function useTicks(): Ticked {
  const { opened } = useDesk();
  const queries = useQueryClient();
  const { id } = opened;
  const params = { path: { id } };
  const ticks = useQuery({
    queryKey: ["ticks", id],
    queryFn: () => ask(api.GET("/api/households/{id}/ticks", { params })),
    refetchInterval: 5_000,
  });
  const put = useMutation({
    mutationFn: ({ rows, right }: { rows: FormRow[]; right: boolean }) => {
      const lines = rows.map(({ line, scope, amount }) => ({ line, scope, amount: amount ?? "0" }));
      return ask(api.PUT("/api/households/{id}/ticks", { params, body: { lines, right } }));
    },
    onSuccess: (ticks) => queries.setQueryData(["ticks", id], ticks),
  });
  const find = (row: FormRow) => ticks.data?.find((t) => t.line === row.line && t.scope === row.scope);
  const same = (row: FormRow, tick: Tick) => Number(tick.amount) === Number(row.amount ?? 0);
  return {
    of: (row) => {
      const tick = find(row);
      return tick && same(row, tick) ? tick : undefined;
    },
    stale: (row) => {
      const tick = find(row);
      return tick && !same(row, tick) ? tick : undefined;
    },
    set: (rows, right) => put.mutate({ rows, right }),
    error: put.error,
  };
}
