// Edits on their way: kept in the browser until the server has acknowledged them, so that a closed tab or a lost
// connection loses none. Each has a key, by which the server makes it once however often it is sent.
import type { Command } from "../api/types";

export type Waiting = { key: string; household: string; by: string; base: number; commands: Command[] };

const STORED = "hembo.edits-on-their-way";

function read(): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(STORED) ?? "[]");
  } catch {
    return [];
  }
}

function write(waiting: Waiting[]) {
  try {
    if (waiting.length === 0) localStorage.removeItem(STORED);
    else localStorage.setItem(STORED, JSON.stringify(waiting));
  } catch {
    // A browser that keeps nothing: the edit is on its way all the same.
  }
}

export function put(edit: Waiting) {
  write([...read().filter((w) => w.key !== edit.key), edit]);
}

export function take(key: string) {
  write(read().filter((w) => w.key !== key));
}

/** What someone left unacknowledged of a household. */
export function left(household: string, by: string): Waiting[] {
  return read().filter((w) => w.household === household && w.by === by);
}
