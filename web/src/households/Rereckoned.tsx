// What moved when households were reckoned by other rules: before and after, until somebody has looked.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { RereckonedRow } from "../api/types";
import { balance, count, difference, touched, units } from "../ui/format";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

const KEY = ["rereckoned"];
/** How often those that wait are asked after, in milliseconds. */
const AGAIN = 3_000;

export function Rereckoned() {
  const found = useQuery({
    queryKey: KEY,
    queryFn: () => ask(api.GET("/api/rereckoned")),
    refetchInterval: (query) => (query.state.data?.waiting ? AGAIN : false),
  });
  const queries = useQueryClient();
  const [looking, setLooking] = useState(false);
  const { moved = 0, waiting = 0, rows = [] } = found.data ?? {};
  if (moved === 0 && waiting === 0) return null;
  const seen = async () => {
    const [until, from] = [rows[0]?.at, rows.at(-1)?.at];
    if (from && until) await ask(api.POST("/api/rereckoned/seen", { body: { from, until } }));
    setLooking(false);
    await queries.invalidateQueries({ queryKey: KEY });
  };
  return (
    <p
      role="status"
      className="my-2 flex flex-wrap items-center gap-x-4 border-l-4 border-plum bg-lilac px-3 py-1.5"
    >
      {moved > 0 && (
        <>
          <span>
            The rules changed: <b>{count(moved, "result")} moved</b> when{" "}
            {moved === 1 ? "it was" : "they were"} reckoned again.
          </span>
          <Button tone="quiet" onClick={() => setLooking(true)}>
            Look at {moved === 1 ? "it" : "them"}
          </Button>
        </>
      )}
      {waiting > 0 && <span>{count(waiting, "household")} still to reckon again…</span>}
      {looking && (
        <Sheet
          title="What moved"
          about="Results before the rules changed, and after. Open a household to see why."
          size="wide"
          onClose={() => setLooking(false)}
        >
          <Rows rows={rows} />
          {moved > rows.length && <p className="mt-2 text-soft">and {moved - rows.length} more</p>}
          <Button tone="main" className="mt-3" onClick={() => void seen()}>
            All of it is seen
          </Button>
        </Sheet>
      )}
    </p>
  );
}

function Rows({ rows }: { rows: RereckonedRow[] }) {
  const by = ({ before, after }: RereckonedRow) => Number(after.total) - Number(before.total);
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-ink text-left text-soft">
          <th className="font-normal">Household</th>
          <th className="text-right font-normal">Total tax before</th>
          <th className="text-right font-normal">after</th>
          <th className="text-right font-normal">by</th>
          <th className="text-right font-normal">Balance after</th>
          <th className="pl-4 font-normal">Reckoned</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.household} className="row-line h-[27px]">
            <td>
              <Link
                to="/h/$id/spread"
                params={{ id: row.household }}
                search={{}}
                className="text-petrol underline"
              >
                {row.name} {row.year}
              </Link>
              {!row.after.covered && <span className="ml-2 text-ochre">no result</span>}
            </td>
            <td className="text-right">{units(row.before.total)}</td>
            <td className="text-right">{units(row.after.total)}</td>
            <td className="text-right font-bold">{difference(String(by(row)))}</td>
            <td className="text-right">{balance(row.after.balance)}</td>
            <td className="pl-4">{touched(row.at)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
