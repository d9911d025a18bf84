// The list of households, before the desk.
import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { Suspense, useDeferredValue, useRef, useState } from "react";
import { api, ask, Refusal } from "../api/client";
import type { HouseholdPage, HouseholdRow, PackInfo, Stage } from "../api/types";
import { later } from "../later";
import { useWho } from "../signin/SignInGate";
import { count, touched, writeNumbers } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Blank, Button, Key, Waiting } from "../ui/pieces";
import { Filters } from "./Filters";
import { HouseholdTable } from "./HouseholdTable";
import { usePractice } from "./usePractice";

const CarryForward = later(() => import("./CarryForward"), "CarryForward");
const Divide = later(() => import("./Divide"), "Divide");
const Erase = later(() => import("./Erase"), "Erase");
const NewHousehold = later(() => import("./NewHousehold"), "NewHousehold");
const PutInHands = later(() => import("./PutInHands"), "PutInHands");
const Practice = later(() => import("./Practice"), "Practice");
const Rereckoned = later(() => import("./Rereckoned"), "Rereckoned");

export function usePacks() {
  return useQuery({
    queryKey: ["packs"],
    queryFn: () => ask(api.GET("/api/packs")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export type Notice = { text: string; undo?: () => Promise<void> };

export type Order = { id: string; down: boolean };

/** Of which law, year and state of work, in whose hands, whether something blocks, and whether it was put away. */
export type Filter = {
  law?: string;
  year?: number;
  stage?: Stage;
  whose?: string;
  held?: boolean;
  away?: true;
};

/** The households that a search finds, a page after the other. */
function useList(search: string, order: Order, filter: Filter) {
  const { law, year, stage, whose, held, away } = filter;
  return useInfiniteQuery({
    queryKey: ["households", search, order, filter],
    queryFn: ({ pageParam }) => {
      const only = { country: law, year, stage, whose, held_up: held, archived: away };
      const query = { search, order: order.id, down: order.down, from: pageParam, ...only };
      return ask(api.GET("/api/households", { params: { query } }));
    },
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const told = pages.reduce((sum, page) => sum + page.rows.length, 0);
      return told < last.count && last.rows.length > 0 ? told : undefined;
    },
    placeholderData: keepPreviousData,
  });
}

/** Those deleted in the last thirty days, the latest first. */
function useDeleted(): HouseholdRow[] {
  const query = { deleted: true, order: "touched", down: true };
  const found = useQuery({
    queryKey: ["households", "deleted"],
    queryFn: () => ask(api.GET("/api/households", { params: { query } })),
  });
  return found.data?.rows ?? [];
}

export function Households() {
  writeNumbers("point");
  const [sought, setSought] = useState("");
  const [order, setOrder] = useState<Order>({ id: "touched", down: true });
  const filter = useSearch({ from: "/" });
  const navigate = useNavigate();
  const show = (filter: Filter) => navigate({ to: "/", search: filter, replace: true });
  const list = useList(useDeferredValue(sought.trim()), order, filter);
  const narrowed = sought !== "" || Object.values(filter).some((of) => of !== undefined);
  const packs = usePacks();
  const [practice, setPractice] = useState(false);
  const [making, setMaking] = useState(false);
  const [notice, setNotice] = useState<Notice | null>(null);
  const search = useRef<HTMLInputElement>(null);
  const [forward, setForward] = useState<HouseholdRow[] | null>(null);
  const [inHands, setInHands] = useState<HouseholdRow[] | null>(null);
  const [chosen, setChosen] = useState(new Set<string>());
  const [dividing, setDividing] = useState<HouseholdRow | null>(null);
  const [erasing, setErasing] = useState<HouseholdRow | null>(null);
  const act = { ...useActions(setNotice), forward: setForward, divide: setDividing, erase: setErasing };
  const deleted = useDeleted();
  useKeys({
    n: () => setMaking(true),
    N: () => setMaking(true),
    "/": () => search.current?.focus(),
    z: () => deleted[0] && void act.restore(deleted[0]),
  });
  const rows = list.data?.pages.flatMap((page) => page.rows) ?? [];
  const first = list.data?.pages[0];
  /** Every household that is found, those of the pages that were not shown yet too. */
  const chooseAll = async () => {
    let { data, hasNextPage } = list;
    while (hasNextPage) ({ data, hasNextPage } = await list.fetchNextPage());
    setChosen(new Set(data?.pages.flatMap((page) => page.rows.map((row) => row.id))));
  };
  return (
    <div className="min-h-screen">
      <TopBar sought={sought} setSought={setSought} search={search} practice={() => setPractice(true)} />
      <main className="px-7 pt-5 pb-8 max-desk:px-3">
        <div className="flex flex-wrap items-end justify-between gap-2">
          <div>
            <h1 className="text-[22px]" style={{ fontStretch: "112%" }}>
              Households
            </h1>
            <p className="text-soft">{first ? told(first, sought) : " "}</p>
          </div>
          <div className="flex gap-2">
            {chosen.size > 0 && chosen.size < (first?.count ?? 0) && (
              <Button tone="quiet" disabled={list.isFetchingNextPage} onClick={() => void chooseAll()}>
                Choose all {first?.count}
              </Button>
            )}
            {chosen.size > 0 && (
              <>
                <Button onClick={() => setInHands(rows.filter((row) => chosen.has(row.id)))}>
                  Put into hands…
                </Button>
                <Button onClick={() => setForward(rows.filter((row) => chosen.has(row.id)))}>
                  Carry {count(chosen.size, "household")} forward…
                </Button>
              </>
            )}
            <ImportButton onFile={act.importFile} />
            <Button tone="main" onClick={() => setMaking(true)}>
              New household <Key>N</Key>
            </Button>
          </div>
        </div>
        {packs.data && <Filters packs={packs.data} filter={filter} show={show} />}
        <Suspense>
          <Rereckoned />
        </Suspense>
        {notice && <NoticeBar notice={notice} close={() => setNotice(null)} />}
        {list.isPending && <Waiting what="Fetching the households…" />}
        {list.isError && (
          <Blank title="The households cannot be fetched">
            <p className="mb-3">{list.error.message}</p>
            <Button onClick={() => list.refetch()}>Try again</Button>
          </Blank>
        )}
        {first?.count === 0 && !narrowed && (
          <NoneYet make={() => setMaking(true)} invite={() => setPractice(true)} />
        )}
        {first?.count === 0 && narrowed && (
          <Blank title={sought ? `Nothing matches “${sought}”` : "No household is like that"}>
            <Button
              onClick={() => {
                setSought("");
                void show({});
              }}
            >
              Show all households
            </Button>
          </Blank>
        )}
        {rows.length > 0 && (
          <HouseholdTable
            rows={rows}
            packs={packs.data ?? []}
            act={act}
            order={order}
            setOrder={setOrder}
            chosen={chosen}
            choose={setChosen}
          />
        )}
        {list.hasNextPage && (
          <Button
            className="mt-4"
            onClick={() => void list.fetchNextPage()}
            disabled={list.isFetchingNextPage}
          >
            Show more: {rows.length} of {first?.count}
          </Button>
        )}
        {deleted.length > 0 && <Deleted rows={deleted} restore={act.restore} />}
      </main>
      <Suspense>
        {erasing && packs.data && <Erase row={erasing} packs={packs.data} onClose={() => setErasing(null)} />}
        {dividing && <Divide row={dividing} onClose={() => setDividing(null)} />}
        {forward && packs.data && (
          <CarryForward
            rows={forward}
            packs={packs.data}
            onClose={() => {
              setForward(null);
              setChosen(new Set());
            }}
          />
        )}
        {inHands && (
          <PutInHands
            rows={inHands}
            onClose={() => {
              setInHands(null);
              setChosen(new Set());
            }}
          />
        )}
        {practice && packs.data && <Practice packs={packs.data} onClose={() => setPractice(false)} />}
        {making && packs.data && <NewHousehold packs={packs.data} onClose={() => setMaking(false)} />}
      </Suspense>
    </div>
  );
}

export function lawOf(row: HouseholdRow, packs: PackInfo[] | undefined) {
  const name = packs?.find((p) => p.id === row.country)?.name ?? row.country;
  return row.summary.locality ? `${name} · ${row.summary.locality}` : name;
}

/** Where the list is empty: what is done first, and why others' households are not there. */
function NoneYet({ make, invite }: { make: () => void; invite: () => void }) {
  const administers = useWho().data?.role === "administrator";
  const practice = usePractice().data;
  const alone = practice?.own_sight && !administers;
  return (
    <Blank title={alone ? "No household in your hands" : "No household yet"}>
      {alone && (
        <p className="mb-3">
          An administrator puts those of the practice into hands; a new one lies in yours.
        </p>
      )}
      <p className="mb-3">Make one with its filers, or bring one in from a household file.</p>
      <Button tone="main" onClick={make}>
        {alone ? "Make a household" : "Make the first household"}
      </Button>
      {administers && practice?.people.length === 1 && (
        <p className="mt-3">
          Nobody else is here yet:{" "}
          <Button tone="quiet" onClick={invite}>
            invite who works here
          </Button>
        </p>
      )}
    </Blank>
  );
}

function told({ count: found, blocked, years }: HouseholdPage, sought: string) {
  if (found === 0) return "";
  const waiting = blocked === 0 ? "none is held up" : `${blocked} held up by open points`;
  const all = `${count(found, "household")} for ${years.toSorted().join(", ")} · ${waiting}`;
  return sought ? `${all} · found by “${sought}”` : all;
}

export type Actions = ReturnType<typeof useActions> & {
  forward: (rows: HouseholdRow[]) => void;
  divide: (row: HouseholdRow) => void;
  erase: (row: HouseholdRow) => void;
};

function useActions(say: (notice: Notice | null) => void) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const refresh = () => queries.invalidateQueries({ queryKey: ["households"] });
  const tell = async (work: () => Promise<Notice | null>) => {
    try {
      say(await work());
    } catch (error) {
      say({ text: (error as Refusal).message });
    }
    await refresh();
  };
  const path = (id: string) => ({ params: { path: { id } } });
  const restore = (row: HouseholdRow) =>
    tell(async () => {
      await ask(api.POST("/api/households/{id}/restore", path(row.id)));
      return { text: `${row.name} is back.` };
    });
  return {
    copy: (row: HouseholdRow) =>
      tell(async () => {
        await ask(api.POST("/api/households/{id}/copy", path(row.id)));
        return { text: `${row.name} was copied.` };
      }),
    remove: (row: HouseholdRow) =>
      tell(async () => {
        await ask(api.DELETE("/api/households/{id}", path(row.id)));
        return { text: `${row.name} was deleted.`, undo: () => restore(row) };
      }),
    restore,
    archive: (row: HouseholdRow, away: boolean) =>
      tell(async () => {
        const to = away ? "/api/households/{id}/archive" : "/api/households/{id}/unarchive";
        await ask(api.POST(to, path(row.id)));
        return { text: away ? `${row.name} was put away.` : `${row.name} is in use again.` };
      }),
    rename: (row: HouseholdRow, name: string) =>
      tell(async () => {
        const body = { base_revision: row.revision, commands: [{ do: "rename" as const, name }] };
        await ask(api.POST("/api/households/{id}/edits", { ...path(row.id), body }));
        return null;
      }),
    importFile: (file: File) =>
      tell(async () => {
        const made = await importHousehold(file);
        await navigate({ to: "/h/$id/spread", params: { id: made.id }, search: {} });
        return null;
      }),
  };
}

async function importHousehold(file: File) {
  const largest = 4 * 1024 * 1024;
  if (file.size > largest) {
    const detail = `${file.name} has ${count(file.size, "byte")}; a household file has at most ${count(largest, "byte")}. Nothing was stored.`;
    throw new Refusal({ type: "urn:hembo:unreadable", title: "Too large", status: 413, detail });
  }
  const text = await file.text();
  try {
    return await ask(
      api.POST("/api/households/import", {
        body: text as never,
        bodySerializer: (body) => body as unknown as string,
      }),
    );
  } catch (error) {
    const { problem } = error as Refusal;
    const places = (problem.faults ?? []).map((f) => (f.at ? `${f.at}: ${f.message}` : f.message));
    const detail = `${file.name} was not imported. ${places.length ? places.slice(0, 4).join(" ") : problem.detail}`;
    throw new Refusal({ ...problem, detail });
  }
}

function ImportButton({ onFile }: { onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        className="hidden"
        aria-label="Household file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
      <Button onClick={() => input.current?.click()}>Import a file…</Button>
    </>
  );
}

/** What was deleted can be brought back for thirty days. */
function Deleted({ rows, restore }: { rows: HouseholdRow[]; restore: (row: HouseholdRow) => void }) {
  return (
    <details className="mt-6 max-w-3xl">
      <summary className="cursor-pointer font-semibold">
        Deleted, 30 days <span className="font-normal text-soft">· {count(rows.length, "household")}</span>
      </summary>
      <ul className="mt-1">
        {rows.map((row) => (
          <li key={row.id} className="row-line flex items-center gap-3 bg-sheet px-2 py-1">
            <b className="font-semibold">{row.name}</b>
            <span className="text-soft">
              {row.year} · deleted {row.deleted_at ? touched(row.deleted_at) : ""}
            </span>
            <Button
              tone="quiet"
              className="ml-auto"
              aria-label={`Bring ${row.name} back`}
              onClick={() => restore(row)}
            >
              Bring it back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

function NoticeBar({ notice, close }: { notice: Notice; close: () => void }) {
  return (
    <div role="status" className="mt-3 flex items-center gap-3 border-l-4 border-petrol bg-wash px-3 py-2">
      <span>{notice.text}</span>
      {notice.undo && (
        <Button tone="quiet" onClick={notice.undo}>
          Bring it back <Key>Z</Key>
        </Button>
      )}
      <Button tone="quiet" className="ml-auto" onClick={close}>
        Close
      </Button>
    </div>
  );
}

type TopBarProps = {
  sought: string;
  setSought: (text: string) => void;
  search: React.RefObject<HTMLInputElement | null>;
  practice: () => void;
};

function TopBar({ sought, setSought, search, practice }: TopBarProps) {
  const who = useWho();
  const queries = useQueryClient();
  const signOut = async () => {
    await ask(api.DELETE("/api/session"));
    queries.clear();
    location.assign("/");
  };
  return (
    <header className="flex h-13 items-center gap-4 bg-plum px-4 text-white">
      <span className="text-[19px] font-extrabold" style={{ fontStretch: "125%" }}>
        Hembo
      </span>
      <input
        ref={search}
        value={sought}
        onChange={(e) => setSought(e.target.value)}
        placeholder="Name, own number, last 4 digits of an ID"
        aria-label="Find a household or a person"
        className="ml-auto h-8 w-92 min-w-0 bg-white/15 px-3 text-white placeholder:text-white/85"
      />
      <Link to="/figures" search={{}} className="whitespace-nowrap text-white underline underline-offset-2">
        Rule figures
      </Link>
      <Link to="/planning" search={{}} className="whitespace-nowrap text-white underline underline-offset-2">
        Planning
      </Link>
      <button type="button" className="whitespace-nowrap underline underline-offset-2" onClick={practice}>
        Practice
      </button>
      <span className="whitespace-nowrap text-white/90 max-md:hidden">{who.data?.name}</span>
      <Button tone="bar" onClick={signOut}>
        Sign out
      </Button>
    </header>
  );
}
