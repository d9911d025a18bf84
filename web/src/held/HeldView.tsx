// What the authority holds beside what was keyed: slips at the left, one of them box by box, what taking it does at the
// right; and what nobody but the family has.
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useEffect } from "react";
import type { Offered } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { useKeys } from "../ui/keys";
import { Blank, Waiting } from "../ui/pieces";
import { AskFamily } from "./AskFamily";
import { Consents } from "./Consents";
import { IfTaken } from "./IfTaken";
import { OwnAssessment, OwnTotals } from "./OwnAssessment";
import { SlipBoxes } from "./SlipBoxes";
import { SlipList } from "./SlipList";
import { toDecide, useAsking, useOutside } from "./useOutside";

export function HeldView() {
  const { opened, pack } = useDesk();
  const outside = useOutside();
  const asking = useAsking();
  const search = useSearch({ from: "/h/$id" });
  const navigate = useNavigate();
  const offered = outside.data?.offered ?? [];
  const slip = offered.find((one) => one.slip === search.slip) ?? toDecide(offered)[0] ?? offered[0];
  const go = (to: Offered | undefined) => {
    if (to) void navigate({ to: "/h/$id/held", params: { id: opened.id }, search: { slip: to.slip } });
  };
  const walk = (step: number) => () =>
    go(offered[offered.findIndex((one) => one.slip === slip?.slip) + step]);
  useKeys({ "]": walk(1), "[": walk(-1) });
  // The one that is shown stays the one in the address, also once it is settled.
  const shown = slip?.slip;
  useEffect(() => {
    if (shown && search.slip === undefined && !search.own) {
      const to = { to: "/h/$id/held", params: { id: opened.id }, search: { slip: shown } } as const;
      void navigate({ ...to, replace: true });
    }
  }, [shown, search.slip, search.own, opened.id, navigate]);
  if (outside.error) return <Blank title="This cannot be shown">{outside.error.message}</Blank>;
  if (!outside.data) return <Waiting what="Looking at what is held…" />;
  const ownShown = search.own === true && pack.assesses_itself;
  const next = () => go(toDecide(offered).find((one) => one.slip !== slip?.slip));
  return (
    <div className="grid h-full grid-cols-[310px_1fr_272px] max-desk:block max-desk:overflow-auto">
      <nav
        aria-label="Slips that are held"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink pb-6"
      >
        <Consents view={outside.data} asking={asking} />
        {pack.assesses_itself && <OwnLink chosen={ownShown} />}
        <SlipList offered={offered} chosen={ownShown ? undefined : slip?.slip} />
        <AskFamily ask={outside.data.ask} asking={asking} />
      </nav>
      <section aria-label="The slip" tabIndex={0} className="min-h-0 overflow-auto bg-sheet">
        {ownShown ? (
          <OwnAssessment />
        ) : slip ? (
          <SlipBoxes key={slip.slip} offered={slip} fetched={outside.data.fetched} next={next} />
        ) : (
          <Blank title="Nothing is held here yet">
            {outside.data.fetched
              ? "The authority and the payers hold no paper of these people for the year."
              : `Once the family agrees, what the authority and the payers hold is fetched and set beside the papers that you keyed: ${pack.held_kinds.join(", ")}.`}
          </Blank>
        )}
      </section>
      <aside
        aria-label={ownShown ? "What it comes to" : "What taking it does"}
        tabIndex={0}
        className="min-h-0 overflow-auto border-l border-rule p-4"
      >
        {ownShown && <OwnTotals />}
        {slip && !ownShown && <IfTaken key={slip.slip} offered={slip} all={offered} next={next} />}
      </aside>
    </div>
  );
}

/** Leads to what the authority assesses by itself. */
function OwnLink({ chosen }: { chosen: boolean }) {
  const { opened } = useDesk();
  return (
    <Link
      to="/h/$id/held"
      params={{ id: opened.id }}
      search={{ own: true }}
      aria-current={chosen ? "true" : undefined}
      className={`block border-b border-l-3 border-b-rule px-3.5 py-2 ${
        chosen ? "border-l-petrol bg-wash" : "border-l-transparent hover:bg-lilac"
      }`}
    >
      <b>Its own assessment</b> <span className="text-soft">of what it holds, beside ours</span>
    </Link>
  );
}
