// Quick moves on the paper behind a marked figure: without it or its line, until a month, more or less in its box.
import { type FormEvent, useState } from "react";
import type { Paper } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { MONTHS } from "../entry/dates";
import { typedAmount } from "../ui/format";
import { Button } from "../ui/pieces";
import { useTrying } from "./useTrials";

type Props = { paper: Paper; box?: { field: string; row?: string | null; label: string } };

export function QuickMoves({ paper, box }: Props) {
  const { opened } = useDesk();
  const { quick, refused } = useTrying();
  const [by, setBy] = useState("");
  const called = paper.title || paper.kind;
  const more = (event: FormEvent) => {
    event.preventDefault();
    if (!box || !by.trim()) return;
    const amount = typedAmount(by.trim().replace(/^\+/, ""));
    const move = { move: "by" as const, paper: paper.id, row: box.row ?? null, field: box.field, amount };
    void quick(move, `${called} ${by.trim().replace(/^-/, "−")}`);
    setBy("");
  };
  return (
    <section className="border-t border-rule pt-2">
      <h3 className="mb-1.5">{opened.trial ? "Quick moves" : "Try it beside the return"}</h3>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => void quick({ move: "without", paper: paper.id }, `without ${called}`)}>
          without this paper
        </Button>
        {box?.row && (
          <Button
            onClick={() =>
              void quick({ move: "without", paper: paper.id, row: box.row }, `a line of ${called} next year`)
            }
          >
            this line next year
          </Button>
        )}
        <select
          aria-label={`${called}: until the end of a month`}
          className="box w-auto!"
          value=""
          onChange={({ target }) => {
            const month = Number(target.value);
            void quick({ move: "until", paper: paper.id, month }, `${called} until ${MONTHS[month - 1]}`);
          }}
        >
          <option value="" disabled>
            only until the end of …
          </option>
          {MONTHS.slice(0, 11).map((name, at) => (
            <option key={name} value={at + 1}>
              {name}
            </option>
          ))}
        </select>
        {box && (
          <form onSubmit={more} className="flex">
            <input
              aria-label={`${box.label}: so much more or less`}
              className="w-24 border border-rule bg-sheet px-2 py-1.5 text-right focus:outline-2 focus:outline-petrol"
              placeholder="± amount"
              value={by}
              onChange={(e) => setBy(e.target.value)}
            />
            <Button type="submit" className="border-l-0" disabled={!by.trim()}>
              more or less
            </Button>
          </form>
        )}
      </div>
      {refused && (
        <p role="alert" className="mt-1.5 border-l-4 border-ochre bg-sand px-2 py-1">
          {refused}
        </p>
      )}
    </section>
  );
}
