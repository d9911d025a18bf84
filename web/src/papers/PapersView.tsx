// Papers: the list by owner, the boxes in the paper's own order, and where they go.
import { useNavigate, useSearch } from "@tanstack/react-router";
import { useDesk } from "../desk/useDesk";
import { FilePages } from "../slips/Files";
import { useKeys } from "../ui/keys";
import { Blank, Key } from "../ui/pieces";
import { PaperForm } from "./PaperForm";
import { groups, PaperList } from "./PaperList";
import { PaperSide } from "./PaperSide";

export function PapersView() {
  const { opened, pack } = useDesk();
  const search = useSearch({ from: "/h/$id" });
  const papers = opened.household.papers ?? [];
  const paper = papers.find((p) => p.id === search.paper) ?? papers[0];
  const kind = pack.paper_kinds.find((k) => k.id === paper?.kind);
  const navigate = useNavigate();
  const walk = (step: number) => () => {
    const order = groups(opened.household.people, papers).flatMap((g) => g.papers);
    const next = order[order.findIndex((p) => p.id === paper?.id) + step];
    if (next) void navigate({ to: "/h/$id/papers", params: { id: opened.id }, search: { paper: next.id } });
  };
  useKeys({ "]": walk(1), "[": walk(-1) });
  const file = paper?.files?.find((one) => one.id === search.file);
  const form = paper && kind && (
    <PaperForm key={paper.id} paper={paper} kind={kind} at={{ field: search.field, row: search.row }} />
  );
  if (paper && file) {
    return (
      <div className="grid h-full grid-cols-2 max-desk:grid-cols-1 max-desk:overflow-auto">
        <section
          aria-label="The slip"
          tabIndex={0}
          className="min-h-0 overflow-auto border-r border-ink bg-paper"
        >
          <FilePages paper={paper} file={file} />
        </section>
        <section aria-label="Boxes" tabIndex={0} className="min-h-0 overflow-auto bg-sheet">
          {form}
        </section>
      </div>
    );
  }
  return (
    <div className="grid h-full grid-cols-[310px_1fr_272px] max-desk:block max-desk:overflow-auto">
      <nav
        aria-label="Papers"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink pb-6 max-desk:max-h-36 max-desk:border-b"
      >
        <PaperList chosen={paper?.id} />
      </nav>
      <section aria-label="Boxes" tabIndex={0} className="min-h-0 overflow-auto bg-sheet">
        {form ?? (
          <Blank title="No paper yet">
            <Key>N</Key> adds one: type its code, such as the number printed on the form, or its name.
          </Blank>
        )}
      </section>
      <aside
        aria-label="Where these boxes go"
        tabIndex={0}
        className="min-h-0 overflow-auto border-l border-rule"
      >
        {paper && <PaperSide key={paper.id} paper={paper} />}
      </aside>
    </div>
  );
}
