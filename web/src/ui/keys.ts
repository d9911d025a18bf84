// Single keys that work wherever nothing can be typed, unless they are turned off.
import { useEffect, useRef, useSyncExternalStore } from "react";

export type Keys = Record<string, (event: KeyboardEvent) => void>;

const STORED = "hembo.single-keys";
const listeners = new Set<() => void>();

function areOn() {
  return localStorage.getItem(STORED) !== "off";
}

export function turnKeys(on: boolean) {
  localStorage.setItem(STORED, on ? "on" : "off");
  for (const listener of listeners) listener();
}

/** Whether letters and signs do something; arrows, Enter and Escape always do. */
export function useKeysOn(): boolean {
  const subscribe = (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };
  return useSyncExternalStore(subscribe, areOn);
}

function isTyping(target: EventTarget | null) {
  const element = target as HTMLElement | null;
  return !!element?.closest(
    "input:not([type=checkbox]), select, textarea, [contenteditable], [role=dialog], [data-box]",
  );
}

/** Escape leaves a box on the desk, so that the single keys work again; in a dialog it closes that. */
function leaveBox(box: HTMLElement) {
  if (!box.closest("[role=dialog]")) box.blur();
}

/** Keys by name, such as "n", "Z" (with shift) or "/". */
export function useKeys(keys: Keys) {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (isTyping(event.target)) {
        if (event.key === "Escape") leaveBox(event.target as HTMLElement);
        return;
      }
      const act = latest.current[event.key];
      if (!act || (event.key.length === 1 && !areOn())) return;
      event.preventDefault();
      act(event);
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
