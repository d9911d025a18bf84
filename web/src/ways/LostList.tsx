import { Link } from "@tanstack/react-router";
import type { Limit, Outcome } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { units } from "../ui/format";

/** Whose limit it is, where there is more than one return. */
function whose(outcome: Outcome, limit: Limit) {
  const of = (l: Limit) => l.scope.startsWith("return/");
  const returns = new Set(outcome.limits.filter(of).map((l) => l.scope));
  return returns.size > 1 ? ` · ${limit.whose.split(" ")[0]}` : "";
}

/** What limits took in the chosen way, and the nearest edge ahead. */
export function LostList() {
  const { opened } = useDesk();
  const lost = opened.outcome.limits.filter((l) => Number(l.lost) > 0);
  const edges = opened.outcome.limits.filter(
    (l) => l.distance && Number(l.distance) > 0 && l.shape === "phase_out",
  );
  const nearest = edges.sort((a, b) => Number(a.distance) - Number(b.distance))[0];
  return (
    <>
      {lost.length === 0 && <p className="text-soft">No limit took anything.</p>}
      {lost.map((limit) => (
        <Link
          key={limit.id + limit.scope}
          to="/h/$id/spread"
          params={{ id: opened.id }}
          search={{ line: limit.line, scopes: limit.scope, trail: true }}
          className="row-line flex items-baseline justify-between gap-3 py-1 hover:text-petrol"
        >
          <span>
            {limit.label}
            {whose(opened.outcome, limit)} <span className="text-[12px] text-soft">{limit.how}</span>
          </span>
          <b className="text-ochre">{units(limit.lost)}</b>
        </Link>
      ))}
      {nearest?.edge && nearest.distance && (
        <p className="pt-2 text-soft">
          Nearest edge: {units(nearest.distance)} more income, at {units(nearest.edge)}, before{" "}
          {nearest.label.toLowerCase()} changes.
        </p>
      )}
    </>
  );
}
