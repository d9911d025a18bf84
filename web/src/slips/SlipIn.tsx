// A slip as a file: its pages at the left; at the right what it seems to be, each box confirmed or corrected by Enter. Only
// what was confirmed is kept.
import { useNavigate } from "@tanstack/react-router";
import { useEffect, useMemo, useState } from "react";
import type { Command, Entry, Paper, PaperKind, SlipBox, SlipLook, SlipRead } from "../api/types";
import { newPaper, paperName } from "../desk/newPaper";
import { useDesk, words } from "../desk/useDesk";
import { isSame } from "../entry/EntryBox";
import { putting, toldEntry, toldField } from "../papers/coded";
import { count } from "../ui/format";
import { Button, Key, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { PageShown } from "./PageShown";
import { asRead, isThere, type ReadLine, SlipLines } from "./SlipLines";
import { SlipRows } from "./SlipRows";
import { tooLarge, useKeepFile, useLook } from "./useSlip";

type Props = {
  file: File;
  /** The paper that it belongs to, where that is known. */
  to?: Paper;
  close: () => void;
};

export function SlipIn({ file, to, close }: Props) {
  const look = useLook();
  const large = tooLarge(file);
  const { mutate } = look;
  useEffect(() => {
    if (large === null) mutate({ file, kind: to?.kind });
  }, [file, large, mutate, to?.kind]);
  const wrong = large ?? (look.error ? look.error.message : null);
  return (
    <Sheet
      title={`A slip: ${file.name}`}
      about="Nothing is kept before you have looked at it."
      size="whole"
      onClose={close}
    >
      {wrong !== null ? (
        <p role="alert" className="border-l-4 border-ochre bg-sand px-3 py-1.5">
          {wrong}
        </p>
      ) : look.data ? (
        <Looked
          key={look.submittedAt}
          file={file}
          look={look.data}
          to={to}
          close={close}
          as={(kind) => mutate({ file, kind })}
        />
      ) : (
        <Waiting what="Reading the slip…" />
      )}
    </Sheet>
  );
}

type LookedProps = { file: File; look: SlipLook; to?: Paper; close: () => void; as: (kind: string) => void };

/** What stands in a box, and whether somebody has looked at it. */
export type Confirmed = Record<string, { value: Entry | null; seen: boolean }>;

function Looked({ file, look, to, close, as }: LookedProps) {
  const { opened, pack } = useDesk();
  const { household } = opened;
  const { proposal } = look;
  const kind = pack.paper_kinds.find((one) => one.id === proposal.kind?.words);
  const people = household.people;
  const [owner, setOwner] = useState(
    proposal.owner?.words ?? (people.length === 1 ? people[0]?.id : "") ?? "",
  );
  const [into, setInto] = useState(to?.id ?? proposal.paper ?? "");
  const [title, setTitle] = useState(proposal.title?.words ?? "");
  const [boxes, setBoxes] = useState<Confirmed>(() => read(proposal.boxes));
  const [lines, setLines] = useState(() => asRead(proposal.rows));
  const [at, setAt] = useState<SlipRead>();
  const papers = (household.papers ?? []).filter((paper) => paper.kind === kind?.id);
  const paper = papers.find((one) => one.id === into);
  const { keep, wrong, keeping } = useKeep(file, close);
  const seen = Object.values(boxes).filter((box) => box.seen && box.value !== null).length;
  const rows = kind ? lines.filter((line) => line.seen && !isThere(kind, paper, line)) : [];
  const reads = useMemo(() => allReads(look), [look]);
  const whose = people.find((person) => person.id === proposal.owner?.words);
  const who = paper ? paper.owners.map((one) => one.person) : owner ? [owner] : [];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,27rem)] gap-5 max-desk:grid-cols-1">
      <section
        aria-label="Its pages"
        tabIndex={0}
        className="max-h-[76vh] space-y-3 overflow-auto bg-paper p-2 max-desk:max-h-[40vh]"
      >
        {look.pages.map((page, n) => (
          <PageShown
            key={n}
            src={`data:image/png;base64,${page}`}
            label={`Page ${n + 1} of ${file.name}`}
            reads={reads.filter((one) => one.page === n)}
            at={at}
          />
        ))}
      </section>
      <section aria-label="What it says" className="flex max-h-[76vh] min-h-0 flex-col max-desk:max-h-none">
        <div className="min-h-0 flex-1 overflow-auto pr-1">
          {look.no_words && <Told>{look.no_words}</Told>}
          {proposal.other_year && (
            <Told>
              {proposal.other_year.words} stands on it: this is the return for {household.year}.
            </Told>
          )}
          <Choose label="What it is" value={kind?.id ?? ""} choose={as} read={proposal.kind} see={setAt}>
            <option value="">Choose what it is</option>
            {pack.paper_kinds.map((one) => (
              <option key={one.id} value={one.id}>
                {one.id} · {one.name}
              </option>
            ))}
          </Choose>
          {kind && (
            <Choose label="Paper" value={into} choose={setInto} see={() => setAt(undefined)}>
              <option value="">a new one</option>
              {papers.map((one) => (
                <option key={one.id} value={one.id}>
                  {paperName(one)}
                </option>
              ))}
            </Choose>
          )}
          {paper && whose && !paper.owners.some((one) => one.person === whose.id) && (
            <Told>It says {whose.name}, who is no owner of that paper.</Told>
          )}
          {kind && !paper && (
            <Choose label="Whose" value={owner} choose={setOwner} read={proposal.owner} see={setAt}>
              <option value="">Choose whose it is</option>
              {people.map((person) => (
                <option key={person.id} value={person.id}>
                  {person.name}
                </option>
              ))}
            </Choose>
          )}
          {kind && (
            <SlipRows
              kind={kind}
              paper={paper}
              proposal={proposal}
              title={title}
              setTitle={setTitle}
              boxes={boxes}
              setBoxes={setBoxes}
              see={setAt}
            />
          )}
          {kind && lines.length > 0 && (
            <SlipLines
              kind={kind}
              paper={paper}
              read={proposal.rows}
              lines={lines}
              setLines={setLines}
              see={setAt}
            />
          )}
        </div>
        <div className="border-t border-ink pt-3">
          {kind && (
            <Button
              tone="main"
              disabled={who.length === 0 || keeping}
              onClick={() => void keep(kind, paper, who, title, boxes, rows)}
            >
              {paper ? `Keep it with ${paperName(paper)}` : `Add the ${kind.id}`}
              {(seen > 0 || rows.length > 0) && ` with ${told(seen, rows.length)}`}
            </Button>
          )}
          <p className="mt-1.5 text-[12px] text-soft">
            {kind && who.length === 0 ? (
              "Say whose it is first."
            ) : (
              <>
                <Key>↵</Key> confirms a box or a line and goes on; what you do not confirm is not taken over.
              </>
            )}
          </p>
          {wrong && <Told>{wrong}</Told>}
        </div>
      </section>
    </div>
  );
}

function read(boxes: SlipBox[]): Confirmed {
  return Object.fromEntries(boxes.map((box) => [box.field, { value: box.entry ?? null, seen: false }]));
}

/** How many boxes and lines are taken over. */
function told(boxes: number, lines: number) {
  const some = [boxes > 0 && count(boxes, "box", "boxes"), lines > 0 && count(lines, "line")];
  return some.filter(Boolean).join(" and ");
}

function allReads({ proposal }: SlipLook): SlipRead[] {
  const boxes = [...proposal.boxes, ...proposal.rows.flat()].map((box) => box.read);
  const some = [proposal.kind, proposal.owner, proposal.title, ...boxes];
  return some.filter((one): one is SlipRead => !!one && one.at.width > 0);
}

function Told({ children }: { children: React.ReactNode }) {
  return (
    <p role="alert" className="my-1.5 border-l-4 border-ochre bg-sand px-3 py-1.5">
      {children}
    </p>
  );
}

type ChooseProps = {
  label: string;
  value: string;
  choose: (value: string) => void;
  read?: SlipRead | null;
  see: (read: SlipRead | undefined) => void;
  children: React.ReactNode;
};

function Choose({ label, value, choose, read, see, children }: ChooseProps) {
  return (
    <label className="row-line grid grid-cols-[6rem_1fr] items-center gap-2 py-1">
      <span className="text-soft">{label}</span>
      <select
        className="box"
        aria-label={label}
        value={value}
        onChange={(event) => choose(event.target.value)}
        onFocus={() => see(read ?? undefined)}
      >
        {children}
      </select>
    </label>
  );
}

/** Keeps the file, then adds it to its paper with what was confirmed: one edit, one undo. */
function useKeep(file: File, close: () => void) {
  const { opened, edit } = useDesk();
  const keepFile = useKeepFile();
  const navigate = useNavigate();
  const [wrong, setWrong] = useState<string | null>(null);
  const [keeping, setKeeping] = useState(false);
  const make = async (
    kind: PaperKind,
    paper: Paper | undefined,
    owners: string[],
    title: string,
    boxes: Confirmed,
    lines: ReadLine[],
  ): Promise<string | null> => {
    const kept = await keepFile(file);
    const differs = ([id, box]: [string, Confirmed[string]]) => {
      const field = toldField(kind, id);
      // What could not be read empties nothing.
      if (!box.seen || box.value === null || !field) return false;
      return !isSame(field, box.value, toldEntry(kind, paper, id) ?? null);
    };
    const confirmed = Object.entries(boxes).filter(differs);
    const fresh = newPaper(kind, opened.household, owners);
    const id = paper?.id ?? fresh.id;
    const commands: Command[] = paper
      ? []
      : [{ do: "add_paper", paper: { ...fresh, title, proof: true, files: [kept] } }];
    if (paper) {
      commands.push({ do: "add_file", paper: id, file: kept }, { do: "set_paper", paper: id, proof: true });
      if (!paper.title && title) commands.push({ do: "set_paper", paper: id, title });
    }
    for (const [field, { value }] of confirmed) {
      if (value !== null) commands.push(putting(kind, id, paper, field, value));
    }
    for (const { cells } of lines) {
      commands.push({ do: "add_row", paper: id, id: `r-${crypto.randomUUID().slice(0, 12)}`, row: cells });
    }
    const refused = words(await edit(commands));
    if (refused !== null) return refused;
    void navigate({ to: "/h/$id/papers", params: { id: opened.id }, search: { paper: id } });
    return null;
  };
  const keep = async (...what: Parameters<typeof make>) => {
    setKeeping(true);
    const refused = await make(...what).catch((error: Error) => error.message);
    setKeeping(false);
    setWrong(refused);
    if (refused === null) close();
  };
  return { keep, wrong, keeping };
}
