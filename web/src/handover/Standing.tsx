// Where the return stands: the path from work to assessment, the steps that lead on, and whose hands it is in.
import { useState } from "react";
import type { Progress, Stage } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { field } from "../entry/field";
import { usePractice } from "../households/usePractice";
import { touched } from "../ui/format";
import { PersonChoice } from "../ui/PersonChoice";
import { Button } from "../ui/pieces";
import { PATH, placeOnPath, stageName, stageWords } from "../ui/stages";
import { type Hands, useMoving } from "./useProgress";

/** What a step is called by whoever takes it. */
const STEP: Record<Stage, string> = {
  in_work: "Back into work",
  ready: "Ready for review",
  in_review: "Begin the review",
  remarks: "Back with remarks",
  cleared: "Clear it",
  handed_over: "Handed over to the family",
  sent: "Sent to the authority",
  accepted: "The authority accepted it",
  refused: "The authority refused it",
  assessed: "Assessed",
};

type Moving = ReturnType<typeof useMoving>;

export function Standing({ progress }: { progress: Progress }) {
  const { opened, past } = useDesk();
  const moving = useMoving(opened.id, opened.revision);
  return (
    <>
      <h2 className="mb-2 text-[15px]">Where it stands</h2>
      <Path progress={progress} />
      {moving.error && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-2 py-1">
          {moving.error.message}
        </p>
      )}
      {!past && <Steps key={progress.stage} progress={progress} moving={moving} />}
      <InHands progress={progress} moving={moving} />
      <Said progress={progress} />
    </>
  );
}

/** The states that a return goes through; a filled square was left behind, an open one is still to come. */
function Path({ progress }: { progress: Progress }) {
  const here = placeOnPath(progress.stage);
  return (
    <ol>
      {PATH.map((stage, place) => {
        const reached = progress.moves.find((move) => move.to === stage && place <= here);
        const mark =
          place < here ? "border-petrol bg-petrol" : place === here ? "border-petrol" : "border-rule";
        const now = place === here ? progress.stage : stage;
        return (
          <li
            key={stage}
            aria-current={place === here ? "step" : undefined}
            className="relative min-h-8 pb-1 pl-6 before:absolute before:top-4 before:left-[6px] before:h-full before:w-0.5 before:bg-rule last:before:hidden"
          >
            <span
              className={`absolute top-1 left-0 z-10 size-3.5 border-2 ${mark} ${place < here ? "" : "bg-paper"}`}
            />
            <b className={place > here ? "font-normal text-soft" : "font-semibold"}>{stageName(now)}</b>
            {reached && (
              <span className="block text-[12px] leading-tight text-soft">
                {touched(reached.at)}, {reached.by}
              </span>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function Steps({ progress, moving }: { progress: Progress; moving: Moving }) {
  const [saying, setSaying] = useState<Stage>();
  const { stage: from, next } = progress;
  const take = (to: Stage, words: string) => moving.step.mutate({ from, to, words });
  return (
    <div className="mt-3 space-y-2 border-t border-ink pt-3">
      {next.map(({ to, words, why_not }, i) => (
        <div key={to}>
          <Button
            tone={i === 0 ? "main" : "plain"}
            className="w-full text-left"
            disabled={Boolean(why_not) || moving.step.isPending}
            onClick={() => (words ? setSaying(to) : take(to, ""))}
          >
            {STEP[to]}
            {words && "…"}
          </Button>
          {why_not && <p className="mt-0.5 text-[12px] leading-tight text-soft">{why_not}</p>}
          {saying === to && <Saying say={(said) => take(to, said)} leave={() => setSaying(undefined)} />}
        </div>
      ))}
      {progress.can_take_back && (
        <Button tone="quiet" onClick={() => moving.back.mutate()}>
          Take the last step back
        </Button>
      )}
    </div>
  );
}

function Saying({ say, leave }: { say: (words: string) => void; leave: () => void }) {
  return (
    <form
      className="mt-1"
      onSubmit={(event) => {
        event.preventDefault();
        say(String(new FormData(event.currentTarget).get("words")));
      }}
    >
      <textarea
        name="words"
        aria-label="What to say with it"
        placeholder="What is to be done, or why"
        className="box h-auto! py-1"
        rows={3}
        required
        maxLength={2000}
        ref={(box) => box?.focus()}
        onKeyDown={(event) => event.key === "Escape" && leave()}
      />
      <Button type="submit" className="mt-1">
        Say it
      </Button>
    </form>
  );
}

const HELD = field("held_until", "Filing held until", { type: "date" });

const NOBODY_YET = { id: "", name: "Nobody yet" };

function InHands({ progress, moving }: { progress: Progress; moving: Moving }) {
  const practice = usePractice().data;
  const now: Hands = {
    worked_by: progress.worked_by?.id ?? null,
    reviewer: progress.reviewer?.id ?? null,
    held_until: progress.held_until ?? null,
  };
  // Nobody new who may not sign in; in whose hands it lies already, it may stay.
  const offered = (stays: string | null) =>
    (practice?.people ?? []).filter((one) => !one.disabled || one.id === stays);
  const reviewers = offered(now.reviewer).filter((one) => practice?.own_review || one.role !== "preparer");
  const put = (change: Partial<Hands>) => moving.hands.mutateAsync({ ...now, ...change });
  return (
    <section className="mt-4 border-t border-ink pt-3">
      <h2 className="mb-1 text-[15px]">In whose hands</h2>
      <PersonChoice
        label="Works on it"
        before={[NOBODY_YET]}
        people={offered(now.worked_by)}
        value={now.worked_by ?? NOBODY_YET.id}
        choose={(id) => void put({ worked_by: id || null })}
      />
      <PersonChoice
        label="Asked to review"
        before={[NOBODY_YET]}
        people={reviewers}
        value={now.reviewer ?? NOBODY_YET.id}
        choose={(id) => void put({ reviewer: id || null })}
      />
      <div className="mt-1.5">
        Filing held until
        <EntryBox
          field={HELD}
          label="Filing held until"
          value={progress.held_until ?? undefined}
          people={[]}
          keep={async (day) => {
            try {
              await put({ held_until: day === null ? null : String(day) });
              return null;
            } catch (error) {
              return (error as Error).message;
            }
          }}
        />
      </div>
    </section>
  );
}

/** What was said with the steps, the latest first. */
function Said({ progress }: { progress: Progress }) {
  const said = progress.moves.filter((move) => move.words !== "");
  if (said.length === 0) return null;
  return (
    <section className="mt-4 border-t border-ink pt-3">
      <h2 className="mb-1 text-[15px]">Said with it</h2>
      <ul>
        {said.map((move) => (
          <li key={move.at} className="row-line py-1">
            <b className="font-semibold">{move.words}</b>
            <span className="block text-[12px] text-soft">
              {stageWords(move.from)} → {stageWords(move.to)} · {move.by}, {touched(move.at)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
