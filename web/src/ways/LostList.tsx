import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { Limit, Outcome } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count, dayOf, difference, isZero, units } from "../ui/format";

/** Whose limit it is, where there is more than one return. */
function whose(outcome: Outcome, limit: Limit) {
  const of = (l: Limit) => l.scope.startsWith("return/");
  const returns = new Set(outcome.limits.filter(of).map((l) => l.scope));
  return returns.size > 1 ? ` · ${limit.whose.split(" ")[0]}` : "";
}

/** How many edges are told. */
const MOST_EDGES = 4;

/** What happens at the edge of a limit. */
const CHANGES: Record<Limit["shape"], string> = {
  cap: "begins to be cut",
  floor: "begins to count",
  phase_out: "shrinks further",
  phase_in: "is whole",
};

/** What limits took in the chosen way, and the nearest edges ahead. */
export function LostList() {
  const { opened } = useDesk();
  const lost = opened.outcome.limits.filter((l) => Number(l.lost) > 0);
  const edges = opened.outcome.limits
    .filter(
      (l) => l.distance && Number(l.distance) > 0 && l.edge && (l.shape === "floor" || !isZero(l.allowed)),
    )
    .sort((a, b) => Number(a.distance) - Number(b.distance))
    .slice(0, MOST_EDGES);
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
      {edges.length > 0 && <h3 className="pt-2 pb-0.5">Nearest edges</h3>}
      {edges.map((edge) => (
        <p key={edge.id + edge.scope} className="row-line flex items-baseline justify-between gap-3 py-0.5">
          <span>
            {edge.label}
            {whose(opened.outcome, edge)} <span className="text-[12px] text-soft">{CHANGES[edge.shape]}</span>
          </span>
          <span className="text-right whitespace-nowrap">
            {units(edge.distance ?? "0")} {edge.shape.startsWith("phase") ? "more income" : "more of it"}
          </span>
        </p>
      ))}
      <ByDate of="births" title="By date of birth" />
      <ByDate of="others" title="By other dates" />
    </>
  );
}

/** How many are told. */
const MOST_DATES = 6;

type ByDateProps = { of: "births" | "others"; title: string };

/** How near dates are to ones with another tax; asked for when it is opened, as it is much work. */
function ByDate({ of, title }: ByDateProps) {
  const { opened } = useDesk();
  const [open, setOpen] = useState(false);
  const { id, revision } = opened;
  const params = { path: { id }, query: { of } };
  const asked = useQuery({
    queryKey: ["date-edges", id, revision, of],
    queryFn: ({ signal }) => ask(api.GET("/api/households/{id}/date-edges", { params, signal })),
    enabled: open,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const words = (days: number) =>
    of === "births" ? (days > 0 ? "younger" : "older") : days > 0 ? "later" : "earlier";
  return (
    <details className="pt-2" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer">{title}</summary>
      {open && asked.isPending && <p className="text-soft">Trying other dates…</p>}
      {asked.error && <p className="text-ochre">{asked.error.message}</p>}
      {asked.data?.edges.length === 0 && (
        <p className="text-soft">Within a year no other date has another tax.</p>
      )}
      {asked.data?.edges.slice(0, MOST_DATES).map((one) => (
        <p key={one.label + one.date} className="row-line flex items-baseline justify-between gap-3 py-0.5">
          <span>
            {one.label}, {count(Math.abs(one.days), "day")} {words(one.days)}{" "}
            <span className="text-[12px] text-soft">
              {of === "births" && "born "}
              {dayOf(one.date)}
            </span>
          </span>
          <b className="whitespace-nowrap">{difference(one.change)}</b>
        </p>
      ))}
      {(asked.data?.left_out ?? 0) > 0 && (
        <p className="text-soft">{count(asked.data?.left_out ?? 0, "more date")} not looked at.</p>
      )}
    </details>
  );
}
