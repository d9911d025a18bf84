// One place to find a line, a person or a paper, and to add a paper by its code or name.
import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useId, useState } from "react";
import { api, ask } from "../api/client";
import type { PaperKind } from "../api/types";
import { focusAtOnce } from "../ui/focus";
import { exact, units } from "../ui/format";
import { Sheet } from "../ui/Sheet";
import { newPaper } from "./newPaper";
import { useDesk } from "./useDesk";

type Found = { id: string; what: string; label: string; detail: string; choose: () => void };

export function Finder({ only, close }: { only: "all" | "papers"; close: () => void }) {
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const list = useId();
  const [owner, setOwner] = useOwner();
  const found = useFound(only, text, owner, close);
  const current = Math.min(at, found.length - 1);
  const onKeyDown = (event: React.KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step) {
      event.preventDefault();
      setAt(Math.max(0, Math.min(found.length - 1, current + step)));
    }
    if (event.key === "Enter") {
      event.preventDefault();
      found[current]?.choose();
    }
  };
  const adding = only === "papers";
  return (
    <Sheet
      title={adding ? "Add a paper" : "Find, or add a paper"}
      about={
        adding ? "Type its code or its name." : "A line, a person, a paper, or the code of a paper to add."
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
          }}
          onKeyDown={onKeyDown}
        />
        <OwnerSelect owner={owner} setOwner={setOwner} />
      </div>
      <div id={list} role="listbox" aria-label="Found" className="mt-2 max-h-80 overflow-auto">
        {found.map((f, i) => (
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
      </div>
      {found.length === 0 && <p className="px-2 py-3 text-soft">Nothing by that name here.</p>}
    </Sheet>
  );
}

function useOwner(): [string, (id: string) => void] {
  const { opened } = useDesk();
  const first = opened.household.people.find((p) => p.role === "filer");
  return useState(first?.id ?? "");
}

function OwnerSelect({ owner, setOwner }: { owner: string; setOwner: (id: string) => void }) {
  const { opened } = useDesk();
  return (
    <label className="flex shrink-0 items-center gap-2">
      Whose
      <select className="box h-8 w-44" value={owner} onChange={(e) => setOwner(e.target.value)}>
        {opened.household.people.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
    </label>
  );
}

function useFound(only: "all" | "papers", text: string, owner: string, close: () => void): Found[] {
  const { opened, pack, edit } = useDesk();
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
  const add = async (kind: PaperKind) => {
    const paper = newPaper(kind, household, [owner]);
    if ((await edit([{ do: "add_paper", paper }])) === null)
      done("papers", { paper: paper.id, field: "title" });
  };
  const kinds = pack.paper_kinds.map((kind) => ({
    id: `kind ${kind.id}`,
    what: "Add",
    label: kind.id,
    detail: kind.name,
    choose: () => void add(kind),
  }));
  const others: Found[] = [
    ...household.people.map((p) => ({
      id: `person ${p.id}`,
      what: "Person",
      label: p.name,
      detail: "",
      choose: () => done("spread", { person: p.id }),
    })),
    ...(household.papers ?? []).map((p) => ({
      id: `paper ${p.id}`,
      what: "Paper",
      label: `${p.kind} ${p.title ?? ""}`,
      detail: exact(outcome.papers.find((o) => o.paper === p.id)?.amount ?? "0"),
      choose: () => done("papers", { paper: p.id }),
    })),
    ...(lines.data ?? []).map((line, i) => ({
      id: `line ${i}`,
      what: "Line",
      label: line.label,
      detail: `${line.whose} · ${units(line.amount)}`,
      choose: () => done("spread", { line: line.id, scopes: line.scope, trail: true }),
    })),
  ];
  const words = text.toLowerCase().split(/\s+/);
  const matches = (f: Found) => words.every((w) => `${f.label} ${f.detail}`.toLowerCase().includes(w));
  const exactly = (f: Found) => (f.label.toLowerCase() === text.trim().toLowerCase() ? 0 : 1);
  const all: Found[] =
    only === "papers"
      ? kinds
      : [...others.slice(0, household.people.length), ...kinds, ...others.slice(household.people.length)];
  return all
    .filter(matches)
    .sort((a, b) => exactly(a) - exactly(b))
    .slice(0, 40);
}
