// The commands that bring a paper's boxes and lines back to what they were.
import type { Command, Paper } from "../api/types";

export function putBack(now: Paper, then: Paper): Command[] {
  const paper = now.id;
  const boxes = different(now.boxes ?? {}, then.boxes ?? {}).map(
    ([field, value]): Command => ({ do: "set_box", paper, field, value }),
  );
  const [rows, before] = [now.rows ?? [], then.rows ?? []];
  const gone = rows.filter(({ id }) => !before.some((row) => row.id === id));
  const lines = before.flatMap(({ id = "", ...cells }): Command[] => {
    const there = rows.find((row) => row.id === id);
    if (!there) return [{ do: "add_row", paper, id, row: cells }];
    const { id: _, ...has } = there;
    return different(has, cells).map(([field, value]) => ({ do: "set_cell", paper, row: id, field, value }));
  });
  const taken = gone.map(({ id = "" }): Command => ({ do: "remove_row", paper, row: id }));
  return [...boxes, ...taken, ...lines];
}

/** What differs, with what it was; nothing where it was empty. */
function different<T>(now: Record<string, T>, then: Record<string, T>): [string, T | null][] {
  const keys = new Set([...Object.keys(now), ...Object.keys(then)]);
  const other = [...keys].filter((key) => JSON.stringify(now[key]) !== JSON.stringify(then[key]));
  return other.map((key) => [key, then[key] ?? null]);
}
