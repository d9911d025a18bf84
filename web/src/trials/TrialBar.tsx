// Over the desk of a trial: what it is, its neighbours, and what becomes of it.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { Trial } from "../api/types";
import { useDesk, words } from "../desk/useDesk";
import { count } from "../ui/format";
import { Button } from "../ui/pieces";
import { useOpening, useTrial, useTrials } from "./useTrials";

export function TrialBar({ list }: { list: () => void }) {
  const { opened, say, change } = useDesk();
  const trial = useTrial().data;
  const trials = useTrials().data ?? [];
  const open = useOpening();
  const queries = useQueryClient();
  const [refused, setRefused] = useState<string | null>(null);
  if (!opened.trial) return null;
  const { of, name } = opened.trial;
  const others = trials.filter((one) => one.id !== opened.id && !one.thrown_away);
  const path = { params: { path: { id: opened.id } } };
  const attempt = async (what: () => Promise<void>) => {
    // What was typed last is stored first.
    const wrong = await change((now) => Promise.resolve(now));
    if (wrong) return setRefused(words(wrong));
    try {
      await what();
      setRefused(null);
    } catch (error) {
      setRefused(told(error as Refusal));
    }
  };
  const apply = () =>
    attempt(async () => {
      const body = { revision: trial?.revision ?? 0 };
      const made = await ask(api.POST("/api/households/{id}/trial/apply", { ...path, body }));
      queries.setQueryData(["household", of], made);
      open(of);
      say(`“${name}” applied: ${made.did.join(" · ")}. Undo takes all of it back.`);
    });
  const throwAway = () =>
    attempt(async () => {
      await ask(api.DELETE("/api/households/{id}", path));
      open(of);
      say(`“${name}” was thrown away. The list of trials can take it back for thirty days.`);
    });
  const follow = () =>
    attempt(async () => {
      const wrong = await change(() => ask(api.POST("/api/households/{id}/trial/follow", path)));
      void queries.invalidateQueries({ queryKey: ["trial"] });
      if (typeof wrong === "string") setRefused(wrong);
    });
  return (
    <div role="status" className="border-b border-ochre bg-sand px-4 py-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span>
          <b>A trial, “{name}”</b> — the return itself is not changed.
        </span>
        <span className="ml-auto flex gap-2">
          <Button onClick={() => open(of)}>Keep, back to the return</Button>
          <Button onClick={() => void throwAway()}>Throw away</Button>
          {trial && <ApplyButton trial={trial} apply={() => void apply()} />}
        </span>
      </div>
      <p className="text-[12px] text-soft">
        {others.length > 0 && "also: "}
        {others.map((one) => (
          <button
            key={one.id}
            type="button"
            className="mr-2 text-petrol underline"
            onClick={() => open(one.id)}
          >
            {one.name}
          </button>
        ))}
        <button type="button" className="text-petrol underline" onClick={list}>
          {others.length > 0 ? "compare them all, or begin another" : "begin another trial"}
        </button>
        {trial && trial.since.length > 0 && (
          <span className="ml-3">
            Since then in the return: {trial.since.slice(-3).join("; ")}.{" "}
            <button type="button" className="text-petrol underline" onClick={() => void follow()}>
              Let the trial follow
            </button>
          </span>
        )}
      </p>
      {refused && (
        <p role="alert" className="mt-1 border-l-4 border-ochre pl-2">
          {refused}
        </p>
      )}
    </div>
  );
}

/** Why it was not done, with what was changed meanwhile. */
function told({ problem, message }: Refusal) {
  const changed = problem.changed?.length
    ? ` Changed meanwhile: ${problem.changed.slice(-3).join("; ")}.`
    : "";
  return `${message}${changed}`;
}

function ApplyButton({ trial, apply }: { trial: Trial; apply: () => void }) {
  const many = trial.changes.length;
  if (trial.other_year) {
    return <span className="self-center text-soft">By the law of another year: not applied</span>;
  }
  return (
    <Button tone="main" onClick={apply} disabled={many === 0}>
      {many === 0 ? "Nothing to apply yet" : `Apply ${count(many, "change")}`}
    </Button>
  );
}
