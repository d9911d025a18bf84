// Hand-over: where the return stands, and what goes to the family.
import { useDesk } from "../desk/useDesk";
import { Blank, Waiting } from "../ui/pieces";
import { Standing } from "./Standing";
import { useProgress } from "./useProgress";

export function HandOverView() {
  const { opened } = useDesk();
  const progress = useProgress(opened.id, opened.revision);
  if (progress.error) return <Blank title="This cannot be shown">{progress.error.message}</Blank>;
  if (!progress.data) return <Waiting what="Asking where it stands…" />;
  return (
    <div className="grid h-full grid-cols-[250px_1fr] max-desk:block max-desk:overflow-auto">
      <aside
        aria-label="Where it stands"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink p-3.5"
      >
        <Standing progress={progress.data} />
      </aside>
    </div>
  );
}
