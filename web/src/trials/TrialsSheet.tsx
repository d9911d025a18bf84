// The trials of a household: begin one, open one, take one back that was thrown away.
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, ask } from "../api/client";
import type { ListedTrial } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { balance, difference, isZero, touched, units } from "../ui/format";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { useOpening, useTrials, useTrying } from "./useTrials";

export function TrialsSheet({ close }: { close: () => void }) {
  const { opened, pack } = useDesk();
  const trials = useTrials();
  const { begin, refused } = useTrying();
  const [name, setName] = useState("");
  const all = trials.data ?? [];
  const start = (event: FormEvent) => {
    event.preventDefault();
    void begin({ name });
  };
  const next = opened.household.year + 1;
  return (
    <Sheet
      title="Trials"
      about={`Copies beside the return of ${opened.household.name}, in which anything may change. The return itself does not.`}
      size="wide"
      onClose={close}
    >
      <form onSubmit={start} className="flex flex-wrap items-end gap-2 border-y border-rule py-3">
        <label className="min-w-60 flex-1">
          <span className="block text-soft">What would happen if…</span>
          <input
            className="w-full border border-rule bg-sheet px-2 py-1.5 focus:outline-2 focus:outline-petrol"
            value={name}
            maxLength={60}
            placeholder="smaller hospital bill"
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <Button tone="main" type="submit">
          Begin a trial
        </Button>
        {pack.years.includes(next) && (
          <Button onClick={() => void begin({ name: name || `By the law of ${next}`, year: next })}>
            By the law of {next}
          </Button>
        )}
      </form>
      {refused && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          {refused}
        </p>
      )}
      {trials.error && <p role="alert">{trials.error.message}</p>}
      {all.length > 0 ? (
        <table className="mt-3 w-full">
          <thead>
            <tr className="border-b border-ink text-right text-soft">
              <th scope="col" className="py-1 text-left font-normal">
                Trial
              </th>
              <th scope="col" className="font-normal">
                Total tax
              </th>
              <th scope="col" className="font-normal">
                Against the return
              </th>
              <th scope="col" className="font-normal">
                Balance
              </th>
              <th scope="col" className="pl-4 text-left font-normal">
                Last changed
              </th>
              <td />
            </tr>
          </thead>
          <tbody>
            {all.map((trial) => (
              <TrialRow key={trial.id} trial={trial} close={close} />
            ))}
          </tbody>
        </table>
      ) : (
        !trials.isPending && (
          <p className="mt-3 text-soft">
            None yet. A trial can also be begun at a figure of the Spread: without a paper, with half of it,
            with more or less.
          </p>
        )
      )}
    </Sheet>
  );
}

function TrialRow({ trial, close }: { trial: ListedTrial; close: () => void }) {
  const { opened } = useDesk();
  const queries = useQueryClient();
  const open = useOpening();
  const here = trial.id === opened.id;
  const takeBack = async () => {
    const path = { params: { path: { id: trial.id } } };
    await ask(api.POST("/api/households/{id}/restore", path));
    void queries.invalidateQueries({ queryKey: ["trials"] });
  };
  const told = (amount: string) => (trial.covered ? units(amount) : "no result");
  return (
    <tr className={`row-line text-right ${trial.thrown_away ? "text-soft" : ""}`}>
      <th scope="row" className="py-1.5 text-left font-semibold">
        {trial.thrown_away || here ? (
          trial.name
        ) : (
          <button
            type="button"
            className="text-petrol underline"
            onClick={() => {
              close();
              open(trial.id);
            }}
          >
            {trial.name}
          </button>
        )}
        {here && <span className="ml-2 font-normal text-soft">open now</span>}
        {trial.thrown_away && <span className="ml-2 font-normal">thrown away</span>}
      </th>
      <td>{told(trial.total)}</td>
      <td>{isZero(trial.more) ? "the same" : difference(trial.more)}</td>
      <td>{trial.covered ? balance(trial.balance) : ""}</td>
      <td className="pl-4 text-left text-soft">
        {touched(trial.touched_at)} · {trial.by}
      </td>
      <td className="text-right">
        {trial.thrown_away && (
          <Button tone="quiet" onClick={() => void takeBack()}>
            Take it back
          </Button>
        )}
      </td>
    </tr>
  );
}
