// Within how much ways count as equal: the choice of who looks, kept in the browser.
import { useSyncExternalStore } from "react";

const STORED = "hembo.equal-within";
const heard = new Set<() => void>();

function kept(): number {
  const within = Number(localStorage.getItem(STORED));
  return within > 0 ? within : 0;
}

function listen(hear: () => void) {
  heard.add(hear);
  return () => heard.delete(hear);
}

export function useWithin(): number {
  return useSyncExternalStore(listen, kept);
}

/** What is no amount above zero is nothing. */
export function setWithin(amount: string) {
  localStorage.setItem(STORED, amount);
  for (const hear of heard) hear();
}
