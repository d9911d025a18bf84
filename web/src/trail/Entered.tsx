// Who put an entry of a paper there, when and how, and whether its paper was checked against the original.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Entered, Household } from "../api/types";
import { useDesk } from "../desk/useDesk";
import type { BoxInput } from "../spread/lines";
import { moment } from "../ui/format";

/** How entries came that nobody set by an edit. */
const CAME: Record<string, string> = {
  created: "with the new household, by",
  imported: "imported by",
  copied: "copied by",
  carried: "carried forward by",
  divided: "divided by",
  tried: "taken into this trial by",
  followed: "followed by",
};

/** What is known of the entries behind a step, as of the revision that is shown. */
export function useEntered() {
  const { opened } = useDesk();
  const { data } = useQuery({
    queryKey: ["entered", opened.id, opened.revision],
    queryFn: () => {
      const path = { id: opened.id, revision: opened.revision };
      return ask(api.GET("/api/households/{id}/revisions/{revision}/entered", { params: { path } }));
    },
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before, query) => (query?.queryKey[1] === opened.id ? before : undefined),
  });
  return (input: BoxInput) => toldOf(input, data ?? [], opened.household);
}

function toldOf({ paper, field, row }: BoxInput, all: Entered[], household: Household): string {
  const isIts = (at: Entered["entries"][number]) =>
    at.paper === paper && at.field === field && (!row || at.row === row);
  // The newest comes first: of a whole list the line that was set last.
  const last = all.find((one) => one.entries.some(isIts));
  if (!last) return "";
  const lines = row ? 1 : all.flatMap((one) => one.entries).filter(isIts).length;
  const by = `${lines > 1 ? "last " : ""}${CAME[last.kind] ?? "set by"} ${last.by}, ${moment(last.at)}`;
  const its = household.papers?.find((one) => one.id === paper);
  const checked = its?.checked && (its.changed ?? []).length === 0;
  return checked ? `${by} · checked against the original` : by;
}
