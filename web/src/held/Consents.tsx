// The family's consent: asked for, waited for, given, ended; and fetching by it.
import { useState } from "react";
import type { Consent, OutsideView } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { dayOf, moment } from "../ui/format";
import { Button } from "../ui/pieces";
import type { useAsking } from "./useOutside";

export type Asking = ReturnType<typeof useAsking>;

export function Consents({ view, asking }: { view: OutsideView; asking: Asking }) {
  const [again, setAgain] = useState(false);
  const { past } = useDesk();
  const [latest] = view.consents;
  const given = view.consents.some((one) => one.state === "granted" && one.scope.includes("papers"));
  const { fetched } = view;
  return (
    <section className="border-b border-rule px-4 pt-3 pb-3">
      <h2 className="text-[15px]">Held by the authority</h2>
      {fetched && (
        <p className="text-soft">
          Fetched {moment(fetched.at)}, {fetched.by}
        </p>
      )}
      {!view.connected && (
        <p className="mt-1 border-l-4 border-ink bg-lilac px-2 py-1">
          No service of an authority is connected to this server.
        </p>
      )}
      {latest && <OneConsent consent={latest} asking={asking} />}
      {asking.error && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-2 py-1">
          {asking.error.message}
        </p>
      )}
      {view.connected && !past && (
        <div className="mt-2 flex flex-wrap gap-2">
          {given && (
            <Button
              tone={fetched ? "plain" : "main"}
              disabled={asking.busy}
              onClick={() => asking.fetch.mutate()}
            >
              {asking.fetch.isPending ? "Fetching…" : fetched ? "Fetch again" : "Fetch what is held"}
            </Button>
          )}
          {latest && latest.state !== "pending" && !again && (
            <Button tone="quiet" onClick={() => setAgain(true)}>
              {latest.state === "granted" ? "Another consent…" : "Ask again…"}
            </Button>
          )}
        </div>
      )}
      {view.connected && !past && (!latest || again) && (
        <AskForIt asking={asking} done={() => setAgain(false)} />
      )}
    </section>
  );
}

const STATES: Record<string, string> = {
  pending: "Consent asked for",
  granted: "Authorised",
  refused: "Consent refused",
  ended: "Consent ended",
};

const SCOPES: Record<string, string> = { papers: "see what is held", filing: "file returns" };

function OneConsent({ consent, asking }: { consent: Consent; asking: Asking }) {
  const people = consent.people.map((name) => name.split(" ")[0]).join(" and ");
  return (
    <div className="mt-1">
      <p>
        <b className="font-semibold">{STATES[consent.state]}</b>{" "}
        {consent.state === "granted" ? `by ${people} until ${dayOf(consent.until)}` : `· ${people}`}
      </p>
      <p className="text-[12px] leading-tight text-soft">
        To {consent.scope.map((one) => SCOPES[one] ?? one).join(" and ")} · {consent.number} ·{" "}
        {moment(consent.at)}, {consent.by}
      </p>
      {consent.words && <p className="text-[12px] text-soft">{consent.words}</p>}
      {(consent.state === "pending" || consent.state === "granted") && (
        <span className="mt-1 -ml-1 flex gap-3">
          {consent.state === "pending" && (
            <Button tone="quiet" disabled={asking.busy} onClick={() => asking.look.mutate(consent.id)}>
              Look whether it is given
            </Button>
          )}
          <Button tone="quiet" disabled={asking.busy} onClick={() => asking.end.mutate(consent.id)}>
            End it
          </Button>
        </span>
      )}
    </div>
  );
}

const UNTIL = field("until", "Until", { type: "date" });

/** A year and a half from today: until the return of the year is assessed. */
function ahead() {
  const day = new Date();
  day.setMonth(day.getMonth() + 18);
  return day.toISOString().slice(0, 10);
}

function AskForIt({ asking, done }: { asking: Asking; done: () => void }) {
  const { opened } = useDesk();
  const { household, outcome } = opened;
  // Whoever files a return of the chosen way has to agree to it, a child with a return of its own too.
  const files = (id: string) => outcome.columns.some((column) => column.person === id && column.files);
  const filers = household.people.filter((person) => person.role === "filer" || files(person.id));
  const [people, setPeople] = useState(filers.filter((one) => one.id_number).map((one) => one.id));
  const [scope, setScope] = useState(["papers", "filing"]);
  const [until, setUntil] = useState(ahead);
  const toggle = (list: string[], one: string) =>
    list.includes(one) ? list.filter((other) => other !== one) : [...list, one];
  const send = () => asking.consent.mutate({ people, scope, until }, { onSuccess: done });
  return (
    <fieldset className="mt-2 space-y-1.5">
      <legend className="mb-1">Ask the family for its consent</legend>
      {filers.map((person) => (
        <label key={person.id} className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={people.includes(person.id)}
            disabled={!person.id_number}
            onChange={() => setPeople(toggle(people, person.id))}
          />
          {person.name}
          {!person.id_number && <span className="text-soft">has no number yet</span>}
        </label>
      ))}
      {Object.entries(SCOPES).map(([one, words]) => (
        <label key={one} className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={scope.includes(one)}
            onChange={() => setScope(toggle(scope, one))}
          />
          to {words}
        </label>
      ))}
      <div className="grid grid-cols-[3rem_9rem] items-center">
        until
        <EntryBox
          field={UNTIL}
          label="Until"
          value={until}
          people={[]}
          keep={async (day) => {
            setUntil(String(day ?? ""));
            return null;
          }}
        />
      </div>
      <Button
        tone="main"
        disabled={asking.busy || people.length === 0 || scope.length === 0 || !until}
        onClick={send}
      >
        {asking.consent.isPending ? "Asking…" : "Ask for it"}
      </Button>
    </fieldset>
  );
}
