// Hand-over: where the return stands; the pack that goes to the family with how each part looks, filing with what became
// of it, or what the next year needs.
import { Link, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import type { PackPart } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { Blank, Waiting } from "../ui/pieces";
import { Filing } from "./Filing";
import { LetterPane } from "./LetterPane";
import { Look } from "./Look";
import { NextYear, NextYearSide } from "./NextYear";
import { Pack } from "./Pack";
import { Receipt } from "./Receipt";
import { Standing } from "./Standing";
import { useFiling, useFilings } from "./useFilings";
import { usePackParts } from "./usePacks";
import { useProgress } from "./useProgress";

export function HandOverView() {
  const { opened } = useDesk();
  const progress = useProgress(opened.id, opened.revision);
  const { side } = useSearch({ from: "/h/$id" });
  if (progress.error) return <Blank title="This cannot be shown">{progress.error.message}</Blank>;
  if (!progress.data) return <Waiting what="Asking where it stands…" />;
  return (
    <div className="grid h-full grid-cols-[250px_minmax(340px,0.8fr)_1fr] max-desk:block max-desk:overflow-auto">
      <aside
        aria-label="Where it stands"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink p-3.5"
      >
        <Standing progress={progress.data} />
      </aside>
      {side === "filing" ? <FilingPanes /> : side === "next" ? <NextYearPanes /> : <PackPanes />}
    </div>
  );
}

const SIDES = [
  { side: undefined, title: "The pack" },
  { side: "filing", title: "Filing" },
  { side: "next", title: "Next year" },
] as const;

/** The pack, filing or the next year. */
function Which() {
  const { opened } = useDesk();
  const here = useSearch({ from: "/h/$id" }).side;
  return (
    <nav aria-label="Pack, filing, next year" className="mb-3 flex gap-5 text-[15px]">
      {SIDES.map(({ side, title }) => (
        <Link
          key={title}
          to="/h/$id/hand-over"
          params={{ id: opened.id }}
          search={{ side }}
          aria-current={side === here ? "page" : undefined}
          className={
            side === here
              ? "border-b-2 border-petrol font-bold"
              : "text-soft underline-offset-4 hover:underline"
          }
        >
          {title}
        </Link>
      ))}
    </nav>
  );
}

function NextYearPanes() {
  return (
    <>
      <section aria-label="Next year" tabIndex={0} className="min-h-0 overflow-auto px-4.5 py-3.5">
        <Which />
        <NextYear />
      </section>
      <aside
        aria-label="What it rests on"
        tabIndex={0}
        className="min-h-0 overflow-auto border-l border-ink bg-lilac p-4"
      >
        <NextYearSide />
      </aside>
    </>
  );
}

function PackPanes() {
  const { opened } = useDesk();
  const packs = usePackParts(opened.id);
  const { letter } = useSearch({ from: "/h/$id" });
  const [looked, setLooked] = useState<PackPart>(letter ? "letter" : "summary");
  if (packs.error) return <Blank title="This cannot be shown">{packs.error.message}</Blank>;
  if (!packs.data) return <Waiting what="Looking at the pack…" />;
  const title = packs.data.parts.find((one) => one.part === looked)?.title ?? "";
  return (
    <>
      <section aria-label="The pack" tabIndex={0} className="min-h-0 overflow-auto px-4.5 py-3.5">
        <Which />
        <Pack packs={packs.data} looked={looked} look={setLooked} />
      </section>
      <aside
        aria-label="How a part looks"
        tabIndex={0}
        className="min-h-0 overflow-auto border-l border-ink bg-lilac p-4"
      >
        {looked === "letter" ? <LetterPane /> : <Look part={looked} title={title} />}
      </aside>
    </>
  );
}

function FilingPanes() {
  const { opened } = useDesk();
  const filings = useFilings(opened.id, opened.revision);
  const deeds = useFiling(opened.id, opened.revision);
  const [at, setAt] = useState<string>();
  if (filings.error) return <Blank title="This cannot be shown">{filings.error.message}</Blank>;
  if (!filings.data) return <Waiting what="Looking at what filing needs…" />;
  const looked = filings.data.filings.find((one) => one.id === at) ?? filings.data.filings[0];
  return (
    <>
      <section aria-label="Filing" tabIndex={0} className="min-h-0 overflow-auto px-4.5 py-3.5">
        <Which />
        <Filing view={filings.data} deeds={deeds} looked={looked} look={setAt} />
      </section>
      <aside
        aria-label="What became of it"
        tabIndex={0}
        className="min-h-0 overflow-auto border-l border-ink bg-lilac p-4"
      >
        {looked ? (
          <Receipt key={looked.id} filing={looked} deeds={deeds} />
        ) : (
          <Blank title="Nothing was filed yet">
            What goes out is a package of the schedules' values with the papers behind them, under a checksum.
            The authority's receipt, what it refuses and its assessment stand here.
          </Blank>
        )}
      </aside>
    </>
  );
}
