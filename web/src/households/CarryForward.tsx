// Households carried forward into the next year, one after the other, with what each needs looked at.
import { Link } from "@tanstack/react-router";
import { useCallback } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { HouseholdRow, PackInfo } from "../api/types";
import { count } from "../ui/format";
import { Button, Meter } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { hasYear, OpenPoints } from "./HouseholdTable";
import { useOneByOne } from "./useOneByOne";

/** What became of one household. */
type Result = { id?: string; year: number; told: string; open?: { blocking: number; looking: number } };

async function carry(row: HouseholdRow, packs: PackInfo[]): Promise<Result> {
  const year = row.year + 1;
  if (!hasYear(packs, row.country, year)) {
    return { year, told: `The figures of ${year} are not here yet` };
  }
  const path = { params: { path: { id: row.id } } };
  try {
    const carried = await ask(api.POST("/api/households/{id}/carry-forward", path));
    const { id, made, blocking, looking } = carried;
    const open = made ? { blocking: blocking ?? 0, looking: looking ?? 0 } : undefined;
    return { id, year, told: made ? "carried forward" : "was there already", open };
  } catch (error) {
    return { year, told: (error as Refusal).message };
  }
}

type Props = { rows: HouseholdRow[]; packs: PackInfo[]; onClose: () => void };

export function CarryForward({ rows, packs, onClose }: Props) {
  const results = useOneByOne(
    rows,
    useCallback((row: HouseholdRow) => carry(row, packs), [packs]),
  );
  const done = results.length === rows.length;
  const failed = results.filter((result) => !result.id).length;
  return (
    <Sheet
      title="Carry forward"
      about="People, what lasts of their answers, empty papers with last year's amounts, and what is carried over go into the next year. The year before stays as it is."
      onClose={onClose}
    >
      <p role="status" className="mb-2">
        {done
          ? `${count(results.length - failed, "household")} of ${rows.length} in the next year.`
          : `${results.length} of ${rows.length}…`}
      </p>
      <Meter part={results.length} whole={rows.length} label={`${results.length} of ${rows.length} done`} />
      <ul className="my-3">
        {rows.map((row, i) => {
          const result = results[i];
          return (
            <li key={row.id} className="row-line grid min-h-[26px] grid-cols-[1fr_auto] items-center gap-x-3">
              <span>
                {row.name} <span className="text-soft">{row.year}</span>
              </span>
              {result?.id ? (
                <span>
                  {result.open ? (
                    <>
                      needs a look: <OpenPoints {...result.open} />
                    </>
                  ) : (
                    result.told
                  )}{" "}
                  ·{" "}
                  <Link
                    to="/h/$id/points"
                    params={{ id: result.id }}
                    search={{}}
                    className="text-petrol underline underline-offset-2"
                  >
                    Open {result.year}
                  </Link>
                </span>
              ) : (
                <span className={result ? "text-ochre" : "text-soft"}>{result?.told ?? "waits"}</span>
              )}
            </li>
          );
        })}
      </ul>
      <Button tone="main" onClick={onClose} disabled={!done}>
        Close
      </Button>
    </Sheet>
  );
}
