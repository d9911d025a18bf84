// The payers that the practice knows. One is corrected here; households that have it as it was are named, and changed only
// when somebody says so.
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { api, ask } from "../api/client";
import type { Command, Corrected, PackInfo, Payer } from "../api/types";
import { useKnownPayers } from "../papers/payers";
import { count } from "../ui/format";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

type Props = { packs: PackInfo[]; onClose: () => void };

export function Payers({ packs, onClose }: Props) {
  const [country, setCountry] = useState(packs[0]?.id ?? "");
  const [sought, setSought] = useState("");
  const [at, setAt] = useState<Payer>();
  const [corrected, setCorrected] = useState<Done>();
  const known = useKnownPayers(country, useDeferredValue(sought.trim()), true).data ?? [];
  return (
    <Sheet
      title="Payers"
      about="Employers, banks, lenders, carers, schools and charities that stand on any paper of the practice."
      onClose={onClose}
    >
      <div className="mb-2 flex gap-2">
        <select
          aria-label="Law"
          className="box w-auto!"
          value={country}
          onChange={(event) => setCountry(event.target.value)}
        >
          {packs.map((pack) => (
            <option key={pack.id} value={pack.id}>
              {pack.name}
            </option>
          ))}
        </select>
        <input
          aria-label="First letters or number"
          placeholder="First letters or number"
          className="box"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
      </div>
      {corrected && <Elsewhere done={corrected} close={() => setCorrected(undefined)} />}
      {known.length === 0 && <p className="text-soft">None begins so.</p>}
      <ul>
        {known.map((payer) => (
          <li key={payer.id} className="row-line flex min-h-8 items-center justify-between gap-3">
            {at?.id === payer.id ? (
              <Correcting
                payer={payer}
                country={country}
                done={(now, answer) => {
                  setAt(undefined);
                  setCorrected({ now, answer });
                }}
                leave={() => setAt(undefined)}
              />
            ) : (
              <>
                <span>{payer.name}</span>
                <span className="flex gap-3">
                  <span className="text-soft">{payer.number}</span>
                  <Button tone="quiet" aria-label={`Correct ${payer.name}`} onClick={() => setAt(payer)}>
                    Correct
                  </Button>
                </span>
              </>
            )}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

type Now = { name: string; number: string };
type Done = { now: Now; answer: Corrected };

type CorrectingProps = {
  payer: Payer;
  country: string;
  done: (now: Now, answer: Corrected) => void;
  leave: () => void;
};

function Correcting({ payer, country, done, leave }: CorrectingProps) {
  const queries = useQueryClient();
  const correct = useMutation({
    mutationFn: (now: Now) =>
      ask(
        api.PUT("/api/payers/{payer}", { params: { path: { payer: payer.id } }, body: { country, ...now } }),
      ),
    onSuccess: (answer, now) => {
      void queries.invalidateQueries({ queryKey: ["payers"] });
      done(now, answer);
    },
  });
  return (
    <form
      className="grid w-full grid-cols-[1fr_9rem_auto_auto] items-center gap-2 py-1"
      onSubmit={(event) => {
        event.preventDefault();
        const form = new FormData(event.currentTarget);
        correct.mutate({ name: String(form.get("name")), number: String(form.get("number")) });
      }}
    >
      <input
        name="name"
        aria-label="Name"
        className="box"
        defaultValue={payer.name}
        required
        maxLength={120}
      />
      <input name="number" aria-label="Number" className="box" defaultValue={payer.number} maxLength={40} />
      <Button type="submit">Keep</Button>
      <Button tone="quiet" onClick={leave}>
        Leave it
      </Button>
      {correct.error && (
        <p role="alert" className="col-span-full border-l-4 border-ochre bg-sand px-2 py-1">
          {correct.error.message}
        </p>
      )}
    </form>
  );
}

/** The households that have a payer as it was: each is changed as an edit of its own, which its history tells. */
function Elsewhere({ done: { now, answer }, close }: { done: Done; close: () => void }) {
  const queries = useQueryClient();
  const { was, uses } = answer;
  const change = useMutation({
    mutationFn: async () => {
      for (const use of uses) {
        const commands = use.papers.flatMap(({ paper, number_box }): Command[] => [
          { do: "set_paper", paper, title: now.name },
          ...(number_box && now.number
            ? [{ do: "set_box" as const, paper, field: number_box, value: now.number }]
            : []),
        ]);
        const body = { base_revision: use.revision, commands };
        await ask(api.POST("/api/households/{id}/edits", { params: { path: { id: use.household } }, body }));
      }
    },
    onSuccess: () => {
      void queries.invalidateQueries();
      close();
    },
  });
  if (uses.length === 0) return null;
  return (
    <div role="status" className="mb-3 border-l-4 border-petrol bg-wash px-3 py-2">
      <p>
        <b>{count(uses.length, "household")}</b> still {uses.length === 1 ? "has" : "have"} “{was.name}”:{" "}
        {uses
          .slice(0, 8)
          .map((use) => `${use.name} ${use.year}`)
          .join(", ")}
        {uses.length > 8 && ` and ${uses.length - 8} more`}. A return among them that was cleared goes back
        into work when it is changed.
      </p>
      {change.error && <p className="text-ochre">{change.error.message}</p>}
      <div className="mt-1 flex gap-3">
        <Button tone="quiet" disabled={change.isPending} onClick={() => change.mutate()}>
          {change.isPending ? "Changing them…" : "Change it there, too"}
        </Button>
        <Button tone="quiet" onClick={close}>
          Leave them as they are
        </Button>
      </div>
    </div>
  );
}
