// The slips that were added to a paper as files: shown beside its boxes, fetched as they came, taken away.
import { Link } from "@tanstack/react-router";
import type { Paper, SlipFile } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { Button } from "../ui/pieces";
import { ChooseFile } from "./ChooseFile";
import { PageShown } from "./PageShown";
import { pageSource } from "./useSlip";

export function Files({ paper }: { paper: Paper }) {
  const { opened, edit, past } = useDesk();
  const files = paper.files ?? [];
  return (
    <section>
      <h2 className="mb-1.5">Slips as files</h2>
      {files.map((file) => (
        <div key={file.id} className="row-line py-1">
          <span className="block truncate font-semibold" title={file.name}>
            {file.name}
          </span>
          <span className="flex gap-2">
            <Link
              to="/h/$id/papers"
              params={{ id: opened.id }}
              search={{ paper: paper.id, file: file.id }}
              className="text-petrol underline"
            >
              Show beside the boxes
            </Link>
            {!past && (
              <Button
                tone="quiet"
                aria-label={`Take ${file.name} away`}
                onClick={() => void edit([{ do: "remove_file", paper: paper.id, file: file.id }])}
              >
                Take away
              </Button>
            )}
          </span>
        </div>
      ))}
      <ChooseFile to={paper} className="mt-1.5 border border-rule bg-sheet px-3 py-1.5 hover:border-plum">
        Add a slip…
      </ChooseFile>
    </section>
  );
}

/** The pages of a file, as large as there is room for. */
export function FilePages({ paper, file }: { paper: Paper; file: SlipFile }) {
  const { opened } = useDesk();
  return (
    <div className="space-y-3 p-3">
      <p className="flex items-center justify-between gap-3">
        <b className="truncate">{file.name}</b>
        <span className="flex shrink-0 gap-3">
          <a
            href={`/api/households/${opened.id}/files/${file.id}`}
            download={file.name}
            className="text-petrol underline"
          >
            As it came
          </a>
          <Link
            to="/h/$id/papers"
            params={{ id: opened.id }}
            search={{ paper: paper.id }}
            className="text-petrol underline"
          >
            Close the slip
          </Link>
        </span>
      </p>
      {Array.from({ length: file.pages }, (_, n) => (
        <PageShown key={n} src={pageSource(opened.id, file.id, n)} label={`Page ${n + 1} of ${file.name}`} />
      ))}
    </div>
  );
}
