// The audit: who signed in or was refused, opened, showed, took out, changed, filed; narrowed, and as CSV.
import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { api, ask } from "../api/client";
import type { AuditKind, AuditRow } from "../api/types";
import { moment } from "../ui/format";
import { PersonChoice } from "../ui/PersonChoice";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { usePractice } from "./usePractice";

const KINDS: { id: AuditKind | ""; name: string }[] = [
  { id: "", name: "Everything" },
  { id: "sign_ins", name: "Sign-ins, and who was refused" },
  { id: "reading", name: "Opened, shown in full, taken out" },
  { id: "changes", name: "Changes of households" },
  { id: "filing", name: "Fetched and filed" },
  { id: "practice", name: "People, practice, figures, keys, erased" },
];

/** How what was done is told; else by its own word. */
const WORDS: Record<string, string> = {
  signed_in: "signed in",
  refused: "refused at the sign-in",
  revealed: "showed in full",
  exported: "took out",
  pack_made: "made a pack",
  brought_back: "brought back",
  moved: "moved on",
  hands: "put into hands",
  tried: "began a trial",
  figure: "rule figure",
  key: "key",
};

const ANYONE = { id: "", name: "Anyone" };

type Narrowed = { who: string; kind: AuditKind | ""; household: string; from: string; until: string };

function queryOf({ who, kind, household, from, until }: Narrowed) {
  return {
    who: who || undefined,
    kind: kind || undefined,
    household: household || undefined,
    from: from || undefined,
    until: until || undefined,
  };
}

export function Audit({ onClose }: { onClose: () => void }) {
  const people = usePractice().data?.people ?? [];
  const [narrowed, narrow] = useState<Narrowed>({ who: "", kind: "", household: "", from: "", until: "" });
  const query = queryOf(useDeferredValue(narrowed));
  const audit = useInfiniteQuery({
    queryKey: ["audit", query],
    queryFn: ({ pageParam }) =>
      ask(api.GET("/api/audit", { params: { query: { ...query, before: pageParam } } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.more ? last.rows.at(-1)?.id : undefined),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const rows = audit.data?.pages.flatMap((page) => page.rows) ?? [];
  const said = Object.entries(query).filter((pair): pair is [string, string] => pair[1] !== undefined);
  return (
    <Sheet
      title="Audit"
      about={
        audit.data?.pages[0]?.guarded
          ? "Who did what, and when. Nothing in it can be changed from here, nor by the application."
          : "Who did what, and when. Nothing in it can be changed from here."
      }
      size="whole"
      onClose={onClose}
    >
      <div className="mb-3 grid grid-cols-5 gap-x-3 max-md:grid-cols-2">
        <PersonChoice
          label="Who"
          before={[ANYONE]}
          people={people}
          value={narrowed.who}
          choose={(who) => narrow({ ...narrowed, who })}
        />
        <PersonChoice
          label="What"
          before={[]}
          people={KINDS}
          value={narrowed.kind}
          choose={(kind) => narrow({ ...narrowed, kind: kind as AuditKind | "" })}
        />
        <label className="mt-1.5 block">
          Household
          <input
            className="box"
            value={narrowed.household}
            onChange={(event) => narrow({ ...narrowed, household: event.target.value })}
          />
        </label>
        <Day label="From" value={narrowed.from} set={(from) => narrow({ ...narrowed, from })} />
        <Day label="Until" value={narrowed.until} set={(until) => narrow({ ...narrowed, until })} />
      </div>
      {audit.isPending && <Waiting what="Asking…" />}
      {audit.error && (
        <p role="alert" className="border-l-4 border-ochre bg-sand px-3 py-2">
          {audit.error.message}
        </p>
      )}
      {audit.isSuccess && rows.length === 0 && <p className="text-soft">Nothing like that was done.</p>}
      <section aria-label="What was done" tabIndex={0} className="max-h-[48vh] overflow-y-auto">
        <table className="w-full border-collapse">
          <tbody>
            {rows.map((row) => (
              <Line key={row.id} row={row} />
            ))}
          </tbody>
        </table>
        {audit.hasNextPage && (
          <Button
            className="mt-2"
            onClick={() => void audit.fetchNextPage()}
            disabled={audit.isFetchingNextPage}
          >
            Show earlier ones
          </Button>
        )}
      </section>
      <div className="mt-4 flex gap-2">
        <a
          className="border border-rule bg-sheet px-3 py-1.5 hover:border-plum"
          href={`/api/audit/file?${new URLSearchParams(said)}`}
          download="audit.csv"
        >
          As CSV
        </a>
        <Button onClick={onClose}>Close</Button>
      </div>
    </Sheet>
  );
}

function Day({ label, value, set }: { label: string; value: string; set: (day: string) => void }) {
  return (
    <label className="mt-1.5 block">
      {label}
      <input type="date" className="box" value={value} onChange={(event) => set(event.target.value)} />
    </label>
  );
}

function Line({ row }: { row: AuditRow }) {
  return (
    <tr className="border-b border-rule align-top">
      <td className="w-28 py-1 pr-3 whitespace-nowrap text-soft">{moment(row.at)}</td>
      <td className="py-1 pr-3 whitespace-nowrap">
        {row.by ?? (
          <span className="text-soft">{row.what === "refused" ? "nobody known" : "on the server"}</span>
        )}
      </td>
      <td className="py-1 pr-3 whitespace-nowrap">
        <b className="font-semibold">{WORDS[row.what] ?? row.what}</b>
      </td>
      <td className="py-1 pr-3">
        {row.name
          ? `${row.name} ${row.year}`
          : row.household && <span className="text-soft">one erased since</span>}
      </td>
      <td className="py-1 text-soft">{row.detail}</td>
    </tr>
  );
}
