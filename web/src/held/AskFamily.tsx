// What nobody but the family has: what an answer or last year calls for first, then what is there.
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { AskFamily as Ask } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count, touched } from "../ui/format";
import { Button } from "../ui/pieces";
import type { Asking } from "./Consents";

export function AskFamily({ ask, asking }: { ask: Ask[]; asking: Asking }) {
  const [all, setAll] = useState(false);
  const { opened, past } = useDesk();
  const near = ask.filter((one) => one.called_for || one.papers > 0 || one.asked_at);
  const shown = all ? ask : near;
  return (
    <section className="mt-3 border-t border-rule first:mt-0">
      <h2 className="px-4 pt-3 pb-1 text-[15px]">Never held: ask the family</h2>
      {shown.length === 0 && (
        <p className="px-4 text-soft">Nothing that the family told calls for such a paper.</p>
      )}
      <ul>
        {shown.map((one) => (
          <li key={one.kind} className="row-line grid grid-cols-[1fr_auto] items-center gap-x-2 px-4 py-0.5">
            <span>
              <b className="font-semibold">{one.kind}</b>{" "}
              <span className="text-[12px] text-soft">{one.name === one.kind ? "" : one.name}</span>
            </span>
            <span className="text-right text-[12px] leading-tight">
              {one.papers > 0 ? (
                <span className="text-soft">{count(one.papers, "paper")}</span>
              ) : one.asked_at ? (
                <span title={`by ${one.asked_by}`}>asked {touched(one.asked_at)}</span>
              ) : (
                one.called_for && <b className="font-semibold">open</b>
              )}
              {one.papers === 0 && !past && (
                <Button
                  tone="quiet"
                  aria-label={`${one.asked_at ? "Not asked" : "Asked"}: ${one.kind}`}
                  disabled={asking.busy}
                  onClick={() => asking.asked.mutate({ kind: one.kind, asked: !one.asked_at })}
                >
                  {one.asked_at ? "not yet" : "asked"}
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {ask.some((one) => one.called_for || (one.asked_at && one.papers === 0)) && (
        <p className="px-4 pt-1.5">
          <Link
            to="/h/$id/hand-over"
            params={{ id: opened.id }}
            search={{ letter: "wanted" }}
            className="text-petrol underline"
          >
            A letter that asks for these
          </Link>
        </p>
      )}
      {ask.length > near.length && (
        <p className="px-3 pt-1">
          <Button tone="quiet" onClick={() => setAll(!all)}>
            {all ? "Only what is called for" : `All ${ask.length} kinds that are never held`}
          </Button>
        </p>
      )}
    </section>
  );
}
