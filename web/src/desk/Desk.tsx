// The desk: the household's name and year on top, the views as ledger tabs along the bottom.
import { useQuery } from "@tanstack/react-query";
import { Link, Outlet, useNavigate, useParams, useRouterState } from "@tanstack/react-router";
import { Fragment, useEffect, useRef, useState } from "react";
import { api, ask } from "../api/client";
import type { Opened, Problem } from "../api/types";
import { useTyping } from "../entry/typing";
import { useProgress } from "../handover/useProgress";
import { usePacks } from "../households/Households";
import { OpenPoints } from "../households/HouseholdTable";
import { NotesButton } from "../notes/NotesButton";
import { DropHere } from "../slips/DropHere";
import { AddPersonSheet } from "../spread/AddPerson";
import { TrialBar } from "../trials/TrialBar";
import { TrialsSheet } from "../trials/TrialsSheet";
import { balance, capital, count, time, touched, units, writeNumbers, yearOf } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Blank, Button, Key, Waiting } from "../ui/pieces";
import { stageName } from "../ui/stages";
import { AboutBox } from "./AboutBox";
import { Export } from "./Export";
import { Finder } from "./Finder";
import { forHousehold } from "./forHousehold";
import { History } from "./History";
import { KeyList } from "./KeyList";
import { type Clash, DeskContext, useDesk, useEdits, useOpened, useOthers, useRevision } from "./useDesk";

export function Desk() {
  const { id } = useParams({ from: "/h/$id" });
  const [past, setPast] = useState<number>();
  const newest = useOpened(id);
  const earlier = useRevision(id, past);
  const packs = usePacks();
  const edits = useEdits(id);
  useOthers(id, newest.data?.revision, edits);
  const opened = past === undefined ? newest : earlier;
  const failed = opened.error ?? packs.error;
  if (failed) {
    return (
      <Blank title="This household cannot be opened">
        <p className="mb-3">{failed.message}</p>
        <Link to="/" className="text-petrol underline">
          Go to the households
        </Link>
      </Blank>
    );
  }
  const pack = packs.data?.find((p) => p.id === opened.data?.household.country);
  if (!opened.data || !pack) return <Waiting what="Opening the household…" />;
  writeNumbers(pack.numbers);
  const bringBack = async () => {
    if (past !== undefined && (await edits.bringBack(past)) === null) setPast(undefined);
  };
  const changes =
    past === undefined
      ? edits
      : {
          ...edits,
          edit: async () => PAST,
          change: async () => PAST,
          undo: () => setPast(undefined),
          redo: () => setPast(undefined),
        };
  return (
    <DeskContext
      value={{
        opened: opened.data,
        pack: forHousehold(pack, opened.data.household),
        past: past !== undefined,
        ...changes,
      }}
    >
      <Open
        opened={opened.data}
        look={setPast}
        bar={past !== undefined && <PastBar opened={opened.data} bringBack={bringBack} leave={setPast} />}
      />
    </DeskContext>
  );
}

const PAST = "This is an earlier revision. Bring it back to change it.";

type OpenProps = { opened: Opened; look: (revision: number) => void; bar: React.ReactNode };

function Open({ opened, look, bar }: OpenProps) {
  const [finding, setFinding] = useState<"all" | "papers" | null>(null);
  const [adding, setAdding] = useState<string | null>(null);
  const [keys, setKeys] = useState(false);
  const [history, setHistory] = useState(false);
  const [trials, setTrials] = useState(false);
  const { undo, redo, problem, clearProblem, clash, notice, clearNotice, past } = useDesk();
  const navigate = useNavigate();
  const go = (view: "spread" | "papers" | "held" | "ways" | "points" | "schedules" | "hand-over") => () =>
    void navigate({ to: `/h/$id/${view}`, params: { id: opened.id }, search: {} });
  useKeys({
    "/": () => setFinding("all"),
    n: () => setFinding("papers"),
    N: () => setFinding("papers"),
    s: go("spread"),
    p: go("papers"),
    a: go("held"),
    w: go("ways"),
    o: go("points"),
    f: go("schedules"),
    // From a trial nothing is handed over.
    g: opened.trial ? () => {} : go("hand-over"),
    h: () => setHistory(true),
    e: () => setTrials(true),
    l: () => void navigate({ to: "/" }),
    z: undo,
    Z: redo,
    "?": () => setKeys(true),
  });
  return (
    <div className="grid h-dvh grid-cols-[minmax(0,1fr)] grid-rows-[52px_auto_minmax(0,1fr)_34px] max-desk:grid-rows-[44px_auto_minmax(0,1fr)_34px] print:block print:h-auto">
      <Header
        opened={opened}
        find={() => setFinding("all")}
        history={() => setHistory(true)}
        trials={() => setTrials(true)}
      />
      <div className="print:hidden">
        {bar}
        {opened.trial && <TrialBar list={() => setTrials(true)} />}
        {problem && <ProblemBar problem={problem} close={clearProblem} />}
        {clash && <ClashBar clash={clash} />}
        {opened.then && <RulesChanged opened={opened} />}
        {opened.outcome.planning && <Planning opened={opened} />}
        {opened.own_figures > 0 && <OwnFigures opened={opened} />}
        {!opened.outcome.covered && <NotCovered opened={opened} />}
      </div>
      <main key={past ? "past" : "now"} className="min-h-0 overflow-hidden print:overflow-visible">
        <Outlet />
      </main>
      <Tabs opened={opened} />
      {notice && <Note words={notice} close={clearNotice} />}
      {finding && <Finder only={finding} close={() => setFinding(null)} addPerson={setAdding} />}
      {adding !== null && <AddPersonSheet called={adding} close={() => setAdding(null)} />}
      {keys && <KeyList close={() => setKeys(false)} />}
      <AboutBox />
      <DropHere />
      {trials && <TrialsSheet close={() => setTrials(false)} />}
      {history && <History id={opened.id} look={look} close={() => setHistory(false)} />}
    </div>
  );
}

type HeaderProps = { opened: Opened; find: () => void; history: () => void; trials: () => void };

function Header({ opened, find, history, trials }: HeaderProps) {
  const { pack, undo, redo } = useDesk();
  const { household, outcome } = opened;
  const law = [yearOf(household.year, pack.planning), pack.name, outcome.locality]
    .filter(Boolean)
    .join(" · ");
  return (
    <header className="flex items-center gap-4 bg-plum px-4 text-white max-desk:gap-2 max-desk:px-2 print:hidden">
      <Link
        to="/"
        className="text-[19px] font-extrabold"
        style={{ fontStretch: "125%" }}
        aria-label="Hembo, all households"
      >
        <span className="max-md:hidden">Hembo</span>
        <span className="md:hidden">H</span>
      </Link>
      <div className="min-w-0 leading-tight">
        <h1 className="truncate text-[14px]">{household.name} household</h1>
        <span className="text-[12px] text-white/85">
          {law} <YearsAround opened={opened} /> <Standing id={opened.id} revision={opened.revision} />
        </span>
      </div>
      <button
        type="button"
        onClick={find}
        className="ml-auto h-8 min-w-0 truncate bg-white/15 px-3 text-left hover:bg-white/25 max-desk:shrink-0"
        aria-label="Find a line, a person, or add a paper"
      >
        <Key>/</Key> <span className="ml-1 max-desk:hidden">Find a line, a person, or add a paper</span>
      </button>
      <span className="flex max-md:hidden">
        <Button tone="bar" onClick={undo} disabled={!opened.can_undo}>
          Undo <Key>Z</Key>
        </Button>
        <Button tone="bar" onClick={redo} disabled={!opened.can_redo}>
          Redo
        </Button>
        <Button tone="bar" onClick={history}>
          History <Key>H</Key>
        </Button>
        <Button tone="bar" onClick={trials}>
          Trials <Key>E</Key>
        </Button>
        <NotesButton />
        <Export id={opened.id} />
      </span>
      <Kept opened={opened} />
    </header>
  );
}

/** The state of work, once it is more than being worked on. */
function Standing({ id, revision }: { id: string; revision: number }) {
  const stage = useProgress(id, revision).data?.stage;
  if (!stage || stage === "in_work") return null;
  return <b className="ml-1 bg-white/15 px-1.5 font-semibold">{stageName(stage)}</b>;
}

/** The same household in the years around. */
function YearsAround({ opened }: { opened: Opened }) {
  const { id, household } = opened;
  const around = useQuery({
    queryKey: ["years", id],
    queryFn: () => ask(api.GET("/api/households/{id}/years", { params: { path: { id } } })),
  });
  const links = [
    { to: around.data?.before, year: household.year - 1 },
    { to: around.data?.after, year: household.year + 1 },
  ];
  return links.map(
    ({ to, year }) =>
      to && (
        <Link
          key={year}
          to="/h/$id/spread"
          params={{ id: to }}
          search={{}}
          className="ml-2 underline underline-offset-2"
          aria-label={`The same household for ${year}`}
        >
          {year}
        </Link>
      ),
  );
}

/** Whether all that was typed is kept. */
function Kept({ opened }: { opened: Opened }) {
  const { saving, unanswered } = useDesk();
  const typing = useTyping();
  const told = unanswered
    ? "No answer: not kept yet, trying again"
    : saving
      ? "Saving…"
      : typing
        ? "typing, not kept yet"
        : `Saved ${time(opened.saved_at)} · rev ${opened.revision}`;
  return (
    <span
      role="status"
      className={`min-w-36 text-right text-[12px] max-desk:min-w-0 shrink-0 ${unanswered ? "bg-sand px-2 py-1 text-ink" : "whitespace-nowrap text-white/90"}`}
    >
      {told}
    </span>
  );
}

/** How long what was done stays told. */
const TOLD = 12_000;

/** What an undo or another window did. */
function Note({ words, close }: { words: string; close: () => void }) {
  const end = useRef(close);
  end.current = close;
  useEffect(() => {
    if (!words) return;
    const timer = setTimeout(() => end.current(), TOLD);
    return () => clearTimeout(timer);
  }, [words]);
  return (
    <p
      role="status"
      className="fixed bottom-11 left-1/2 z-30 flex max-w-[90vw] -translate-x-1/2 items-center gap-3 bg-ink px-4 py-2 text-white print:hidden"
    >
      <span className="line-clamp-2">{words}</span>
      <button type="button" className="underline" onClick={close}>
        Close
      </button>
    </p>
  );
}

function ProblemBar({ problem, close }: { problem: Problem; close: () => void }) {
  return (
    <div role="alert" className="flex items-center gap-3 border-l-4 border-ochre bg-sand px-4 py-2">
      <span>
        <b>{problem.title}.</b> {problem.detail}
        {problem.changed?.length ? (
          <span className="text-soft"> Changed: {problem.changed.join("; ")}.</span>
        ) : null}
        {problem.status === 409 ? " What you typed last was not stored." : null}
      </span>
      <Button tone="quiet" className="ml-auto" onClick={close}>
        Close
      </Button>
    </div>
  );
}

/** Both sides of an edit that met another one; the box it was typed in shows the same choice. */
function ClashBar({ clash }: { clash: Clash }) {
  const { clearClash } = useDesk();
  return (
    <div role="alert" className="flex items-center gap-3 border-l-4 border-ochre bg-sand px-4 py-2">
      <span>
        <b>Changed meanwhile by {clash.conflicts[0]?.by ?? "someone else"}; yours is not stored yet.</b>{" "}
        <span className="text-soft">{clash.changed.slice(-3).join("; ")}</span>
      </span>
      <Button tone="quiet" className="ml-auto" onClick={clearClash}>
        Keep theirs
      </Button>
      <Button tone="quiet" onClick={() => void clash.again()}>
        Set mine
      </Button>
    </div>
  );
}

/** A year that is not over. */
function Planning({ opened }: { opened: Opened }) {
  const { country, year } = opened.household;
  return (
    <p role="status" className="border-l-4 border-plum bg-lilac px-4 py-1.5">
      <b>{year} is for planning.</b> The year is not over, its forms are not out, and some figures are to be
      confirmed.{" "}
      <Link to="/figures" search={{ law: country }} className="text-petrol underline underline-offset-2">
        Rule figures
      </Link>
    </p>
  );
}

/** Some figures of the rules are the practice's own. */
function OwnFigures({ opened }: { opened: Opened }) {
  const { country, year } = opened.household;
  return (
    <p role="status" className="border-l-4 border-petrol bg-wash px-4 py-1.5">
      <b>{count(opened.own_figures, "figure")}</b> of {year} {opened.own_figures === 1 ? "is" : "are"} the
      practice's own.{" "}
      <Link to="/figures" search={{ law: country, own: true }} className="text-petrol underline">
        Rule figures
      </Link>
    </p>
  );
}

/** The same papers came to something else when they were stored. */
function RulesChanged({ opened }: { opened: Opened }) {
  const { then, outcome } = opened;
  if (!then) return null;
  const total = (covered: boolean, amount: string) => (covered ? units(amount) : "no result");
  return (
    <p role="status" className="border-l-4 border-petrol bg-wash px-4 py-1.5">
      <b>The rules have changed</b> since revision {opened.revision} was stored: lowest tax{" "}
      {total(then.covered, then.total)} then, {total(outcome.covered, outcome.total)} now; balance{" "}
      {balance(then.balance)} then, {balance(outcome.balance)} now.
    </p>
  );
}

type PastProps = { opened: Opened; bringBack: () => void; leave: (past: undefined) => void };

function PastBar({ opened, bringBack, leave }: PastProps) {
  return (
    <div role="status" className="flex items-center gap-3 border-l-4 border-plum bg-lilac px-4 py-2">
      <span>
        <b>Revision {opened.revision}</b>, {touched(opened.saved_at)}: how it was, by the rules of today.
        Nothing can be changed here.
      </span>
      <Button tone="quiet" className="ml-auto" onClick={bringBack}>
        Bring this back
      </Button>
      <Button tone="quiet" onClick={() => leave(undefined)}>
        Back to the newest
      </Button>
    </div>
  );
}

function NotCovered({ opened }: { opened: Opened }) {
  const missing = opened.outcome.points.filter((p) => p.not_covered);
  const more = missing.length - 2;
  return (
    <p role="status" className="border-l-4 border-ink bg-lilac px-4 py-1.5">
      <b>The figures are not a result.</b>{" "}
      {missing
        .slice(0, 2)
        .map((p) => p.message)
        .join(" ")}{" "}
      {more > 0 && (
        <Link
          to="/h/$id/points"
          params={{ id: opened.id }}
          search={{}}
          className="text-petrol underline underline-offset-2"
        >
          and {more} more
        </Link>
      )}
    </p>
  );
}

function Tabs({ opened }: { opened: Opened }) {
  const { outcome, household } = opened;
  const here = useRouterState({ select: (s) => s.location.pathname.split("/").pop() });
  const open = outcome.points.filter((p) => !p.dismissed);
  const blocking = open.filter((p) => p.weight === "blocks").length;
  const tab = (view: string) =>
    `mr-0.5 flex h-7 items-center gap-1.5 rounded-b-[5px] px-4 max-desk:px-2 font-semibold whitespace-nowrap ${here === view ? "bg-ink text-white" : "bg-[#e6deeb] hover:bg-rule"}`;
  const to = { params: { id: opened.id }, search: {} };
  return (
    <footer className="flex items-start overflow-x-auto border-t border-rule px-3.5 max-desk:px-1 print:hidden">
      <nav aria-label="Views" className="flex">
        <Link to="/h/$id/spread" {...to} className={tab("spread")}>
          Spread
        </Link>
        <Link to="/h/$id/papers" {...to} className={tab(here === "held" ? "held" : "papers")}>
          Papers <span className="font-normal">{household.papers?.length ?? 0}</span>
        </Link>
        <Link to="/h/$id/ways" {...to} className={tab("ways")}>
          Ways
        </Link>
        <Link to="/h/$id/points" {...to} className={tab("points")}>
          {open.length > 0 && <OpenPoints blocking={blocking} looking={open.length - blocking} />} Open points
        </Link>
        <Link to="/h/$id/schedules" {...to} className={tab("schedules")}>
          Schedules
        </Link>
        {!opened.trial && (
          <Link to="/h/$id/hand-over" {...to} className={tab("hand-over")}>
            Hand-over
          </Link>
        )}
      </nav>
      <span className="mt-1 ml-auto text-[12px] whitespace-nowrap text-soft max-desk:hidden">
        {outcome.covered && (
          <>
            {opened.trial && <>In the trial: </>}
            {outcome.authorities.length > 1
              ? outcome.authorities.map((of) => (
                  <Fragment key={of.name}>
                    {capital(of.name)} <b className="text-ink">{balance(of.balance)}</b> ·{" "}
                  </Fragment>
                ))
              : null}
            Balance <b className="text-ink">{balance(outcome.balance)}</b> · after {units(outcome.paid)} paid
            ·{" "}
          </>
        )}
        <Key>?</Key> keys
      </span>
    </footer>
  );
}
