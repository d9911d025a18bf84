// One place to find a line, a person or a paper, and to add a paper or a person, by what people call it.
import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useEffect, useId, useState } from "react";
import { api, ask } from "../api/client";
import type { PaperKind } from "../api/types";
import { ChoiceBox } from "../entry/ChoiceBox";
import { focusAtOnce } from "../ui/focus";
import { exact, typedAmount, units } from "../ui/format";
import { Sheet } from "../ui/Sheet";
import { recentKinds } from "./recentKinds";
import { useAddPaper } from "./useAddPaper";
import { useDesk } from "./useDesk";

type Found = {
  id: string;
  what: string;
  label: string;
  detail: string;
  /** Other words that it is found by. */
  words?: string;
  /** Amounts that it is found by. */
  amounts?: string[];
  /** The heading under which it is offered while nothing is typed. */
  heading?: string;
  choose: () => void;
};

type Props = { only: "all" | "papers"; close: () => void; addPerson: (name: string) => void };

const BOTH = "both";

export function Finder({ only, close, addPerson }: Props) {
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const list = useId();
  const { opened } = useDesk();
  const filers = opened.household.people.filter((p) => p.role === "filer");
  const [owner, setOwner] = useState(filers[0]?.id ?? "");
  const { found, pending } = useFound(only, text, owner, close, addPerson);
  // Enter before the lines are there takes the first that comes.
  const [taking, setTaking] = useState(false);
  const first = found[0];
  useEffect(() => {
    if (!taking || (!first && pending)) return;
    setTaking(false);
    first?.choose();
  }, [taking, first, pending]);
  const current = Math.min(at, found.length - 1);
  const onKeyDown = (event: React.KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step) {
      event.preventDefault();
      setAt(Math.max(0, Math.min(found.length - 1, current + step)));
    }
    if (event.key === "Enter") {
      event.preventDefault();
      // Nothing is opened or added before something was typed or marked.
      if (text.trim() && !first) setTaking(pending);
      else if (text.trim() || at > 0) found[current]?.choose();
    }
  };
  const adding = only === "papers";
  const owners = [
    ...opened.household.people.map((p) => ({ id: p.id, label: p.name })),
    ...(filers.length > 1 ? [{ id: BOTH, label: "Both filers" }] : []),
  ];
  return (
    <Sheet
      title={adding ? "Add a paper" : "Find, or add"}
      about={
        adding
          ? "Type its code, its name or what it is for."
          : "A line, a person, a paper, an amount, or what to add."
      }
      onClose={close}
    >
      <div className="flex gap-3">
        <input
          ref={focusAtOnce}
          role="combobox"
          aria-expanded="true"
          aria-controls={list}
          aria-activedescendant={found[current] ? `${list}-${current}` : undefined}
          aria-label={adding ? "Paper" : "Find"}
          className="box h-8"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setAt(0);
            setTaking(false);
          }}
          onKeyDown={onKeyDown}
        />
        <span className="flex shrink-0 items-center gap-2">
          Whose
          <span className="w-44">
            <ChoiceBox
              options={owners}
              value={owner}
              keep={(value) => value && setOwner(value)}
              refuse={() => {}}
              shared={{ "aria-label": "Whose" }}
            />
          </span>
        </span>
      </div>
      <div id={list} role="listbox" aria-label="Found" className="mt-2 max-h-80 overflow-auto">
        {underHeadings(found).map(({ heading, of }) => (
          <Offered key={heading ?? ""} heading={heading}>
            {of.map(({ f, i }) => (
              <div
                key={f.id}
                id={`${list}-${i}`}
                role="option"
                tabIndex={-1}
                aria-selected={i === current}
                className={`flex cursor-pointer gap-3 px-2 py-1 ${i === current ? "bg-wash" : "hover:bg-paper"}`}
                onClick={f.choose}
                onKeyDown={onKeyDown}
              >
                <span className="w-20 shrink-0 text-soft">{f.what}</span>
                <span className="font-semibold whitespace-nowrap">{f.label}</span>
                <span className="ml-auto truncate text-soft">{f.detail}</span>
              </div>
            ))}
          </Offered>
        ))}
      </div>
      {found.length === 0 && <p className="px-2 py-3 text-soft">Nothing by that name here.</p>}
    </Sheet>
  );
}

/** What is offered under a heading; all at once where there is none. */
function Offered({ heading, children }: { heading: string | undefined; children: React.ReactNode }) {
  if (!heading) return children;
  return (
    <fieldset aria-label={heading} className="mt-2 first:mt-0">
      <p aria-hidden="true" className="px-2 pb-0.5 text-[12px] font-semibold text-petrol">
        {heading}
      </p>
      {children}
    </fieldset>
  );
}

/** What was found with its place, heading by heading. */
function underHeadings(found: Found[]) {
  const placed = found.map((f, i) => ({ f, i }));
  const headings = [...new Set(found.map((f) => f.heading))];
  return headings.map((heading) => ({ heading, of: placed.filter(({ f }) => f.heading === heading) }));
}

function useFound(
  only: "all" | "papers",
  text: string,
  owner: string,
  close: () => void,
  addPerson: (name: string) => void,
): { found: Found[]; pending: boolean } {
  const { opened, pack } = useDesk();
  const { household, outcome, id } = opened;
  const navigate = useNavigate();
  const lines = useQuery({
    queryKey: ["lines", id, opened.revision],
    queryFn: () =>
      ask(
        api.GET("/api/households/{id}/revisions/{revision}/lines", {
          params: { path: { id, revision: opened.revision } },
        }),
      ),
    enabled: only === "all",
    staleTime: Number.POSITIVE_INFINITY,
  });
  const done = (to: "papers" | "spread", search: object) => {
    close();
    void navigate({ to: `/h/$id/${to}`, params: { id }, search });
  };
  const filers = household.people.filter((p) => p.role === "filer").map((p) => p.id);
  const addPaper = useAddPaper();
  const add = async (kind: PaperKind) => {
    // What only one may own is the first filer's.
    const owners = owner !== BOTH ? [owner] : kind.shared ? filers : filers.slice(0, 1);
    if (await addPaper(kind, owners)) close();
  };
  const kinds: Found[] = pack.paper_kinds.map((kind) => ({
    id: `kind ${kind.id}`,
    what: "Add",
    label: kind.id,
    detail: owner === BOTH && !kind.shared ? `${kind.name} · one owner` : kind.name,
    words: kind.words,
    heading: kind.subject,
    choose: () => void add(kind),
  }));
  const people: Found[] = household.people.map((p) => ({
    id: `person ${p.id}`,
    what: "Person",
    label: p.name,
    detail: "",
    choose: () => done("spread", { person: p.id }),
  }));
  const papers: Found[] = (household.papers ?? []).map((p) => ({
    id: `paper ${p.id}`,
    what: "Paper",
    label: `${p.kind} ${p.title ?? ""}`.trim(),
    detail: exact(outcome.papers.find((o) => o.paper === p.id)?.amount ?? "0"),
    words: pack.paper_kinds.find((k) => k.id === p.kind)?.words,
    amounts: [p.boxes ?? {}, ...(p.rows ?? [])].flatMap((cells) => Object.values(cells).map(String)),
    choose: () => done("papers", { paper: p.id }),
  }));
  const found: Found[] = (lines.data ?? []).map((line, i) => ({
    id: `line ${i}`,
    what: "Line",
    label: line.label,
    detail: `${line.whose} · ${units(line.amount)}`,
    amounts: [line.amount],
    choose: () => done("spread", { line: line.id, scopes: line.scope, trail: true }),
  }));
  const newPerson: Found = {
    id: "new person",
    what: "Add",
    label: "Person",
    detail: "a child, a parent, a second filer",
    words: "child parent spouse dependent filer baby grandmother",
    choose: () => {
      close();
      addPerson("");
    },
  };
  if (only === "papers" && !text.trim())
    return { found: bySubject(kinds, recentKinds(pack.id)), pending: false };
  const all = only === "papers" ? kinds : [...people, ...kinds, newPerson, ...papers, ...found];
  const ranked = all.map((f) => ({ f, rank: rankOf(f, text) })).filter((r) => r.rank < NOT);
  const first = ranked
    .sort((a, b) => a.rank - b.rank)
    .map((r) => ({ ...r.f, heading: undefined }))
    .slice(0, 40);
  return { found: first, pending: only === "all" && lines.isPending };
}

/** What was added last, then everything under its heading, in the order in which the law's papers are declared. */
function bySubject(kinds: Found[], recent: string[]): Found[] {
  const again = recent.flatMap((id) => kinds.filter((kind) => kind.id === `kind ${id}`));
  const headings = [...new Set(kinds.map((kind) => kind.heading))];
  return [
    ...again.map((kind) => ({ ...kind, heading: "Added last" })),
    ...headings.flatMap((heading) => kinds.filter((kind) => kind.heading === heading)),
  ];
}

const NOT = 9;

/** Letters and digits only, so that a code is found without its signs. */
function bare(text: string) {
  return text.toLowerCase().replaceAll(/[^\p{L}\d]+/gu, "");
}

/** The first letters of words in a row, by which people call many a plan and tax. */
function initials(text: string) {
  return text
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .map((word) => word.charAt(0))
    .join("");
}

/** How well something fits what was typed: its name, the beginning of it, an amount, a word, an everyday word. */
function rankOf({ label, detail, words = "", amounts = [] }: Found, text: string): number {
  const sought = text.trim().toLowerCase();
  if (!sought) return 0;
  const code = bare(sought);
  if (code && bare(label) === code) return 0;
  const amount = Number(typedAmount(sought));
  if (/\d/.test(sought) && !Number.isNaN(amount) && amounts.some((a) => fits(a, amount, sought))) return 1;
  if (code.length > 1 && bare(label).startsWith(code)) return 2;
  const shown = `${label} ${detail}`.toLowerCase();
  const everyday = words.split(" ");
  const each = sought.split(/\s+/);
  if (each.every((w) => shown.includes(w))) return 3;
  if (everyday.includes(sought)) return 4;
  if (code.length > 2 && initials(`${label} ${detail}`).includes(code)) return 5;
  return each.every((w) => shown.includes(w) || everyday.some((one) => one.startsWith(w))) ? 6 : NOT;
}

/** The amount itself; whole units are found without their cents. */
function fits(held: string, amount: number, sought: string) {
  const value = Number(held);
  if (Number.isNaN(value) || amount === 0) return false;
  return sought.includes(".")
    ? Math.abs(value) === Math.abs(amount)
    : Math.trunc(Math.abs(value)) === Math.abs(amount);
}
