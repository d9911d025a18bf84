// What the answers to questions would do here and now.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Answered, Asked, Field, Opened } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { shownEntry } from "../entry/EntryBox";
import { count, difference, isZero } from "../ui/format";

/**
 * The questions of a person, or of the household where nobody is named: undefined while they are on their way, null where
 * nobody asks or the server cannot say.
 */
export function useAsked(person: string | undefined, wanted = true): Map<string, Asked> | null | undefined {
  const { opened, past } = useDesk();
  const asked = useQuery({
    queryKey: ["questions", opened.id, opened.revision, person],
    queryFn: ({ signal }) =>
      ask(
        api.GET("/api/households/{id}/questions", {
          params: { path: { id: opened.id }, query: { person } },
          signal,
        }),
      ),
    enabled: wanted && !past,
    placeholderData: (before, query) =>
      before && query?.queryKey[1] === opened.id && query.queryKey[3] === person ? before : undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (asked.data) return new Map(asked.data.map((a) => [a.field, a]));
  return asked.isLoading ? undefined : null;
}

/** What an answer does: "412 less tax", "asks 2 more", "nothing". */
function deed({ total, settles, raises, covered }: Answered, isCovered: boolean): string {
  const told = [];
  if (isCovered && !covered) told.push("no result: not computed");
  if (total && !isZero(total)) told.push(`tax ${difference(total)}`);
  if (settles > 0) told.push(`settles ${count(settles, "point")}`);
  if (raises > 0) told.push(`asks ${raises} more`);
  return told.join(", ");
}

/** What the answers to a question would do, each in words; those that do nothing are left out. */
export function deeds(field: Field, { household, outcome }: Opened, asked: Asked | undefined): string[] {
  const told = (asked?.answers ?? []).map((a) => ({
    value: shownEntry(field, household.people, a.value as never),
    does: deed(a, outcome.covered),
  }));
  return told.filter((t) => t.does).map((t) => `${t.value}: ${t.does}`);
}
