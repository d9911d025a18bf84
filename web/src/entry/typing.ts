// Which boxes hold typing that is not kept yet. It is kept when the page goes away.
import { useSyncExternalStore } from "react";

type Flush = () => void;

const typing = new Set<Flush>();
const listeners = new Set<() => void>();

function tell() {
  for (const listener of listeners) listener();
}

/** A box with typing that is not kept; `flush` gives it to be kept. */
export function startTyping(flush: Flush) {
  if (typing.has(flush)) return;
  typing.add(flush);
  tell();
}

export function stopTyping(flush: Flush) {
  if (typing.delete(flush)) tell();
}

function keepAll() {
  for (const flush of [...typing]) flush();
}

window.addEventListener("pagehide", keepAll);
document.addEventListener("visibilitychange", () => document.hidden && keepAll());

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Whether anything typed is not kept yet. */
export function useTyping(): boolean {
  return useSyncExternalStore(subscribe, () => typing.size > 0);
}
