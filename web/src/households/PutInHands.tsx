// Many households put into people's hands at once: to work on, or to review.
import { useCallback, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { HouseholdRow } from "../api/types";
import type { Hands } from "../handover/useProgress";
import { count } from "../ui/format";
import { PersonChoice } from "../ui/PersonChoice";
import { Button, Meter } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { useOneByOne } from "./useOneByOne";
import { usePractice } from "./usePractice";

const AS_IT_IS = "";
const NOBODY = "nobody";
const BEFORE = [
  { id: AS_IT_IS, name: "As it is" },
  { id: NOBODY, name: "Nobody" },
];

/** A person's id, or one of those before them. */
type Wanted = { works: string; reviews: string };

/** What went wrong, or nothing. */
async function put(row: HouseholdRow, { works, reviews }: Wanted): Promise<string | null> {
  const path = { params: { path: { id: row.id } } };
  const chosen = (wanted: string, now: string | null) =>
    wanted === AS_IT_IS ? now : wanted === NOBODY ? null : wanted;
  try {
    const now = await ask(api.GET("/api/households/{id}/progress", path));
    const body: Hands = {
      worked_by: chosen(works, now.worked_by?.id ?? null),
      reviewer: chosen(reviews, now.reviewer?.id ?? null),
      held_until: now.held_until ?? null,
    };
    await ask(api.PUT("/api/households/{id}/hands", { ...path, body }));
    return null;
  } catch (error) {
    return (error as Refusal).message;
  }
}

type Props = { rows: HouseholdRow[]; onClose: () => void };

export function PutInHands({ rows, onClose }: Props) {
  const practice = usePractice().data;
  const [wanted, setWanted] = useState<Wanted>({ works: AS_IT_IS, reviews: AS_IT_IS });
  const [given, setGiven] = useState<Wanted | null>(null);
  const work = useCallback((row: HouseholdRow) => put(row, given as Wanted), [given]);
  const results = useOneByOne(rows, given ? work : null);
  const done = results.length === rows.length;
  const people = (practice?.people ?? []).filter((one) => !one.disabled);
  const reviewers = people.filter((one) => practice?.own_review || one.role !== "preparer");
  const failed = rows.flatMap((row, i) => (results[i] ? [{ row, why: results[i] }] : []));
  return (
    <Sheet
      title="Put into hands"
      about={`${count(rows.length, "household")}. What is left as it is stays with whom it lies.`}
      onClose={onClose}
    >
      <PersonChoice
        label="Works on them"
        before={BEFORE}
        people={people}
        value={wanted.works}
        choose={(works) => setWanted({ ...wanted, works })}
        disabled={given !== null}
      />
      <PersonChoice
        label="Asked to review them"
        before={BEFORE}
        people={reviewers}
        value={wanted.reviews}
        choose={(reviews) => setWanted({ ...wanted, reviews })}
        disabled={given !== null}
      />
      {given && (
        <div className="mt-3">
          <p role="status" className="mb-2">
            {done
              ? `${count(rows.length - failed.length, "household")} of ${rows.length} put into these hands.`
              : `${results.length} of ${rows.length}…`}
          </p>
          <Meter
            part={results.length}
            whole={rows.length}
            label={`${results.length} of ${rows.length} done`}
          />
          <ul className="mt-2">
            {failed.map(({ row, why }) => (
              <li key={row.id} className="row-line grid grid-cols-[1fr_2fr] gap-x-3 py-1">
                <span>
                  {row.name} <span className="text-soft">{row.year}</span>
                </span>
                <span className="text-ochre">{why}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      <div className="mt-4 flex gap-2">
        {!given && (
          <Button
            tone="main"
            disabled={wanted.works === AS_IT_IS && wanted.reviews === AS_IT_IS}
            onClick={() => setGiven(wanted)}
          >
            Put {count(rows.length, "household")} there
          </Button>
        )}
        <Button onClick={onClose} disabled={given !== null && !done}>
          Close
        </Button>
      </div>
    </Sheet>
  );
}
