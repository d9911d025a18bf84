// The states of work, as people read them.
import type { Stage } from "../api/types";
import { capital } from "./format";

const WORDS: Record<Stage, string> = {
  in_work: "in work",
  ready: "ready for review",
  in_review: "in review",
  remarks: "back with remarks",
  cleared: "cleared",
  handed_over: "handed over",
  sent: "sent",
  accepted: "accepted",
  refused: "refused",
  assessed: "assessed",
};

export const STAGES = Object.keys(WORDS) as Stage[];

/** Within a sentence. */
export function stageWords(stage: Stage) {
  return WORDS[stage];
}

/** On its own. */
export function stageName(stage: Stage) {
  return capital(WORDS[stage]);
}

/** Those that a return goes through where all goes well, in order. */
export const PATH: Stage[] = [
  "in_work",
  "ready",
  "in_review",
  "cleared",
  "handed_over",
  "sent",
  "accepted",
  "assessed",
];

/** How far along the path a state is; what comes back stands where it came from. */
export function placeOnPath(stage: Stage): number {
  if (stage === "remarks") return PATH.indexOf("in_work");
  if (stage === "refused") return PATH.indexOf("sent");
  return PATH.indexOf(stage);
}
