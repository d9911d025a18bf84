// Hand-over: where the return stands, the pack that goes to the family, and how each of its parts looks.
import { useState } from "react";
import type { PackPart } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { Blank, Waiting } from "../ui/pieces";
import { LetterPane } from "./LetterPane";
import { Look } from "./Look";
import { Pack } from "./Pack";
import { Standing } from "./Standing";
import { usePackParts } from "./usePacks";
import { useProgress } from "./useProgress";

export function HandOverView() {
  const { opened } = useDesk();
  const progress = useProgress(opened.id, opened.revision);
  const packs = usePackParts(opened.id);
  const [looked, setLooked] = useState<PackPart>("summary");
  const failed = progress.error ?? packs.error;
  if (failed) return <Blank title="This cannot be shown">{failed.message}</Blank>;
  if (!progress.data || !packs.data) return <Waiting what="Asking where it stands…" />;
  const title = packs.data.parts.find((one) => one.part === looked)?.title ?? "";
  return (
    <div className="grid h-full grid-cols-[250px_minmax(340px,0.8fr)_1fr] max-desk:block max-desk:overflow-auto">
      <aside
        aria-label="Where it stands"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink p-3.5"
      >
        <Standing progress={progress.data} />
      </aside>
      <section aria-label="The pack" tabIndex={0} className="min-h-0 overflow-auto px-4.5 py-3.5">
        <Pack packs={packs.data} looked={looked} look={setLooked} />
      </section>
      <aside
        aria-label="How a part looks"
        tabIndex={0}
        className="min-h-0 overflow-auto border-l border-ink bg-lilac p-4"
      >
        {looked === "letter" ? <LetterPane /> : <Look part={looked} title={title} />}
      </aside>
    </div>
  );
}
