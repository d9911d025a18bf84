// Every decision with its options and their prices; a click holds an option, another lets it go.
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { Decision } from "../api/types";
import { type How, useDesk, words } from "../desk/useDesk";
import { capital, count, difference, isZero, units } from "../ui/format";
import { Button } from "../ui/pieces";
import { AmountChoice } from "./AmountChoice";
import { CertificateSheet } from "./CertificateSheet";
import { Levers } from "./Levers";
import { useComparison } from "./useComparison";
import { useCurve } from "./useCurve";
import { Withholding } from "./Withholding";

export function Decisions() {
  const { opened, past } = useDesk();
  const { outcome } = opened;
  const [certified, setCertified] = useState(false);
  const { decisions } = useComparison();
  const open = (d: Decision) =>
    d.arises && (!isZero(d.worth) || d.pinned || (d.amount && !isZero(d.amount.most)));
  const arising = decisions.filter(open);
  const others = decisions.filter((d) => !open(d));
  return (
    <>
      <h2 className="pt-3.5 text-[15px]">What the law leaves open</h2>
      <p className="pb-2 text-soft">
        {count(outcome.decisions.length, "decision")} · {count(outcome.lawful_ways, "lawful way")} ·{" "}
        {outcome.complete ? "every one weighed" : "weighed, but not all"}
        {outcome.points.some((p) => p.unweighed && !p.dismissed) && ", more told below"}
        {!past && (
          <Button tone="quiet" className="ml-1" onClick={() => setCertified(true)}>
            Certificate
          </Button>
        )}
      </p>
      {certified && <CertificateSheet close={() => setCertified(false)} />}
      {!outcome.pins_hold && (
        <p role="status" className="mb-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          No lawful way holds all the pins: they are set aside.
        </p>
      )}
      {arising.map((d) => (
        <OneDecision key={d.id} decision={d} />
      ))}
      <NotSaid />
      <Levers />
      <Withholding />
      <NotWeighed />
      {others.length > 0 && (
        <details className="border-t border-rule pt-2.5">
          <summary className="cursor-pointer text-soft">
            {others.length} that do not arise in this way, or change nothing
          </summary>
          {others.map((d) => (
            <OneDecision key={d.id} decision={d} />
          ))}
        </details>
      )}
    </>
  );
}

/** What could not be weighed, because something that decides it is not said. */
function NotSaid() {
  const { opened, pack } = useDesk();
  const asked = new Set([...pack.person_questions, ...pack.household_questions].map((q) => q.id));
  const missing = opened.outcome.points.filter(
    (p) =>
      !p.dismissed && p.weight === "blocks" && !p.place.paper && p.place.field && asked.has(p.place.field),
  );
  if (missing.length === 0) return null;
  return (
    <section className="border-t border-rule pt-2.5 pb-1.5">
      <b>Not weighed: not said yet</b>
      <ul>
        {missing.map((point) => (
          <li key={point.id} className="py-0.5 pl-6">
            {point.message} <span className="text-soft">{point.remedy}</span>
          </li>
        ))}
      </ul>
      <Link
        to="/h/$id/points"
        params={{ id: opened.id }}
        search={{}}
        className="pl-6 text-petrol underline underline-offset-2"
      >
        Answer them
      </Link>
    </section>
  );
}

/** What the law leaves open besides: of this household as its points tell it, and of any household. */
function NotWeighed() {
  const { opened, pack } = useDesk();
  const told = opened.outcome.points.filter((p) => p.unweighed && !p.dismissed);
  return (
    <>
      {told.length > 0 && (
        <section aria-label="Lawful too, not weighed" className="border-t border-rule pt-2.5 pb-1.5">
          <b>Lawful too, not weighed</b>
          <ul>
            {told.map((point) => (
              <li key={point.id} className="py-0.5 pl-6">
                {point.message} {point.remedy} <span className="text-[12px] text-soft">{point.cite}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {pack.elections.length > 0 && (
        <details className="border-t border-rule pt-2.5 pb-1.5">
          <summary className="cursor-pointer text-soft">
            {pack.elections.length} chosen beside the return, not weighed for anyone
          </summary>
          <ul>
            {pack.elections.map(({ what, cite }) => (
              <li key={what} className="py-0.5 pl-6">
                {what} <span className="text-[12px] text-soft">{cite}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

/** Where the choice turns: between its lines, or along the amount that the curve is drawn along. */
function BreakEven({ decision }: { decision: Decision }) {
  const { along, curve } = useCurve();
  const told = [decision.break_even ? capital(decision.break_even) : null];
  if (along && curve && decision.arises) {
    const now = Number(along.amount);
    const turns = curve.turns.filter((t) => t.decision === decision.id);
    const below = turns.filter((t) => Number(t.amount) <= now).at(-1);
    const above = turns.find((t) => Number(t.amount) > now);
    if (below) told.push(`${below.from} below ${units(below.amount)} in ${along.name}`);
    if (above) told.push(`${above.to} from ${units(above.amount)} in ${along.name}`);
    const open = decision.options.filter((o) => !o.barred).length > 1 && !decision.neutral;
    if (open && turns.length === 0 && !isZero(decision.worth)) {
      told.push(`does not turn from 0 to ${units(curve.points.at(-1)?.amount ?? "0")} in ${along.name}`);
    }
  }
  return told
    .filter((t) => t !== null)
    .map((words) => (
      <p key={words} className="pl-6 text-[12px] text-ochre">
        {words}
      </p>
    ));
}

/** Why an option is held against the lowest: kept, and printed with the way. */
function WhyHeld({ decision }: { decision: Decision }) {
  const { edit, past } = useDesk();
  const [fault, setFault] = useState<string | null>(null);
  const said = decision.reason ?? "";
  const keep = async (box: HTMLInputElement) => {
    const reason = box.value.trim();
    if (reason === said) return;
    setFault(words(await edit([{ do: "give_reason", decision: decision.id, reason: reason || null }])));
  };
  return (
    <div className="pb-1 pl-6">
      <input
        className="box w-full"
        aria-label={`Why ${decision.label} is held`}
        placeholder="Why it is held: kept, and printed with the way"
        defaultValue={said}
        key={said}
        maxLength={500}
        readOnly={past}
        onBlur={(event) => void keep(event.currentTarget)}
        onKeyDown={(event) => {
          if (event.key === "Enter") void keep(event.currentTarget);
          if (event.key === "Escape") event.currentTarget.value = said;
        }}
      />
      {fault && (
        <p role="alert" className="text-ochre">
          {fault}
        </p>
      )}
    </div>
  );
}

function OneDecision({ decision }: { decision: Decision }) {
  const { edit, opened } = useDesk();
  const { complete } = opened.outcome;
  const [fault, setFault] = useState<string | null>(null);
  const pin = async (option: string | null, how?: How) => {
    const wrong = await edit([{ do: "pin", decision: decision.id, option }], how);
    setFault(decision.amount ? null : words(wrong));
    return wrong;
  };
  return (
    <fieldset className="border-t border-rule pt-2.5 pb-1.5">
      <legend className="float-left w-full">
        <span className="flex justify-between gap-2">
          <b>{decision.label}</b>
          {decision.pinned ? (
            <Button
              className="border-plum! px-1.5! py-0! min-h-[25px] text-[12px] font-semibold text-plum"
              onClick={() => pin(null)}
            >
              pinned by you · let go
            </Button>
          ) : (
            <b className="whitespace-nowrap text-petrol">
              {isZero(decision.worth) ? "same tax" : `worth ${units(decision.worth)}`}
            </b>
          )}
        </span>
      </legend>
      <div className="clear-both pt-1">
        {decision.pinned && <WhyHeld key={decision.pinned} decision={decision} />}
        {decision.amount && <AmountChoice decision={decision} amount={decision.amount} hold={pin} />}
        {decision.options.map((option) =>
          option.barred ? (
            <p key={option.id} className="py-0.5 pl-6 text-soft">
              {option.label} — {option.barred}
            </p>
          ) : (
            <button
              key={option.id}
              type="button"
              aria-pressed={decision.pinned === option.id}
              aria-label={`Hold ${option.label}`}
              className="grid min-h-[25px] w-full grid-cols-[24px_1fr_auto_64px] items-center text-left hover:bg-wash"
              onClick={() => pin(decision.pinned === option.id ? null : option.id)}
            >
              <span
                className={`size-[11px] border ${option.chosen ? "border-petrol bg-petrol" : "border-ink"}`}
              />
              <span>
                {option.label}
                {option.chosen && <span className="sr-only"> (taken)</span>}
              </span>
              <span className={option.chosen ? "font-semibold" : ""}>
                {option.best ? units(option.best) : complete ? "does not arise" : "not weighed"}
              </span>
              <span className="text-right text-soft">
                {option.more && !isZero(option.more) ? difference(option.more) : ""}
              </span>
            </button>
          ),
        )}
        {fault && (
          <p role="alert" className="text-ochre">
            {fault}
          </p>
        )}
        <BreakEven decision={decision} />
        <p className="pt-0.5 pl-6 text-[12px] text-soft">
          {decision.cite}
          {decision.neutral ? " · moves money between the returns, not the tax" : ""}
        </p>
      </div>
    </fieldset>
  );
}
