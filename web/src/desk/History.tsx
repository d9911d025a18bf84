// What was done to a household, by whom and when; any revision can be looked at and brought back.
import { useInfiniteQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { HistoryEntry } from "../api/types";
import { moment, units } from "../ui/format";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { useDesk } from "./useDesk";

const KINDS: Record<string, string> = {
  created: "Made",
  imported: "Imported",
  copied: "Copied from another",
  carried: "Carried forward from the year before",
  divided: "Divided from a household of two",
  tried: "Begun as a trial of the return",
  followed: "Put on top of what came to the return",
  undone: "Undone",
  redone: "Redone",
  brought_back: "Brought back",
  deleted: "Deleted",
  restored: "Restored",
  archived: "Put away",
  unarchived: "Taken out again",
  moved: "Moved on",
  changed: "Back in work",
  unchanged: "As before",
  taken_back: "Taken back",
};

type Props = { id: string; look: (revision: number) => void; close: () => void };

export function History({ id, look, close }: Props) {
  const { opened } = useDesk();
  const pages = useInfiniteQuery({
    queryKey: ["history", id, opened.revision],
    queryFn: ({ pageParam }) => {
      const query = pageParam ? { before: pageParam } : {};
      return ask(api.GET("/api/households/{id}/history", { params: { path: { id }, query } }));
    },
    initialPageParam: "",
    getNextPageParam: (last) => (last.length === 50 ? last.at(-1)?.at : undefined),
  });
  const entries = pages.data?.pages.flat() ?? [];
  const view = (revision: number) => {
    look(revision);
    close();
  };
  return (
    <Sheet
      title="History"
      about="Newest first. Any revision can be looked at, and brought back as a new one."
      size="wide"
      onClose={close}
    >
      {pages.isPending && <Waiting what="Fetching the history…" />}
      {pages.error && <p className="text-ochre">{pages.error.message}</p>}
      <ol>
        {entries.map((entry) => (
          <Entry key={entry.at + entry.kind} entry={entry} newest={opened.revision} view={view} />
        ))}
      </ol>
      {pages.hasNextPage && (
        <Button
          className="mt-3"
          onClick={() => void pages.fetchNextPage()}
          disabled={pages.isFetchingNextPage}
        >
          Earlier
        </Button>
      )}
    </Sheet>
  );
}

type EntryProps = { entry: HistoryEntry; newest: number; view: (revision: number) => void };

function Entry({ entry, newest, view }: EntryProps) {
  const { revision, what } = entry;
  const kind = KINDS[entry.kind];
  return (
    <li className="row-line grid grid-cols-[104px_1fr_88px_64px] gap-x-3 py-1">
      <span className="text-soft">{moment(entry.at)}</span>
      <span>
        {kind && <b className="font-semibold">{kind}. </b>}
        {what.length > 0 ? what.join(" · ") : kind ? "" : "Nothing changed"}
        <span className="block text-[12px] text-soft">{entry.by}</span>
      </span>
      <span className="text-right">{entry.total && units(entry.total)}</span>
      <span className="text-right">
        {revision && revision !== newest ? (
          <Button tone="quiet" aria-label={`View revision ${revision}`} onClick={() => view(revision)}>
            View {revision}
          </Button>
        ) : (
          <span className="text-soft">{revision ? "now" : ""}</span>
        )}
      </span>
    </li>
  );
}
