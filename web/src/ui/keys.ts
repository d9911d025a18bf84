// Single keys that work wherever no text is being typed.
import { useEffect, useRef } from "react";

export type Keys = Record<string, (event: KeyboardEvent) => void>;

function isTyping(target: EventTarget | null) {
  const element = target as HTMLElement | null;
  return !!element?.closest("input, select, textarea, [contenteditable], [role=dialog]");
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
      if (!act) return;
      event.preventDefault();
      act(event);
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
