// A part of the pack as it will stand on its pages.
import type { DocumentBlock, PackPart } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { usePractice } from "../households/usePractice";
import { PageShown } from "../slips/PageShown";
import { pageSource } from "../slips/useSlip";
import { Waiting } from "../ui/pieces";
import { usePart } from "./usePacks";

export function Look({ part, title }: { part: PackPart; title: string }) {
  const { opened } = useDesk();
  const blocks = usePart(opened.id, opened.revision, part);
  const practice = usePractice().data?.name;
  return (
    <article className="mx-auto max-w-[660px] border border-rule bg-sheet px-10 py-9">
      {practice && (
        <p className="mb-4 font-bold text-plum" style={{ fontStretch: "120%" }}>
          {practice}
        </p>
      )}
      <h2 className="text-[19px]" style={{ fontStretch: "112%" }}>
        {title}
      </h2>
      {blocks.error && <p className="text-ochre">{blocks.error.message}</p>}
      {blocks.isPending && <Waiting what="Writing it…" />}
      {blocks.data?.map((block, at) => (
        <Block key={`${part} ${at}`} block={block} />
      ))}
    </article>
  );
}

function Block({ block }: { block: DocumentBlock }) {
  switch (block.is) {
    case "heading":
      return <h3 className="mt-5 mb-1 font-semibold">{block.of}</h3>;
    case "text":
      return (
        <p className="my-1.5 whitespace-pre-line">
          {block.of.map((run, at) => (run.bold ? <b key={at}>{run.words}</b> : run.words))}
        </p>
      );
    case "list":
      return (
        <ul className="my-1.5 ml-5 list-disc">
          {block.of.map((item, at) => (
            <li key={at} className="whitespace-pre-line">
              {item.map((run) => run.words).join("")}
            </li>
          ))}
        </ul>
      );
    case "table":
      return <Table of={block.of} />;
    case "bars":
      return (
        <ul className="my-2 space-y-1.5">
          {block.of.map((bar, at) => (
            <li key={bar.label} className="flex items-center gap-2">
              <span
                className={`h-4 shrink-0 ${at === 0 ? "bg-petrol" : "bg-plum"}`}
                style={{ width: `${bar.part * 50}%` }}
              />
              {bar.label}
            </li>
          ))}
        </ul>
      );
    case "picture":
      return <Picture of={block.of} />;
  }
}

function Picture({ of }: { of: Extract<DocumentBlock, { is: "picture" }>["of"] }) {
  const { opened } = useDesk();
  return (
    <figure className="my-3">
      <figcaption className="mb-1">{of.words}</figcaption>
      <PageShown src={pageSource(opened.id, of.file, of.page)} label={of.words} />
    </figure>
  );
}

type TableOf = Extract<DocumentBlock, { is: "table" }>["of"];

function Table({ of: { columns, rows } }: { of: TableOf }) {
  const whole = columns.reduce((sum, column) => sum + column.share, 0);
  const headed = columns.some((column) => column.title);
  const side = (at: number) => (columns[at]?.right ? "text-right whitespace-nowrap" : "text-left");
  return (
    <table className="my-2 w-full table-fixed border-collapse">
      <colgroup>
        {columns.map((column, at) => (
          <col key={at} style={{ width: `${(100 * column.share) / whole}%` }} />
        ))}
      </colgroup>
      {headed && (
        <thead>
          <tr className="border-b border-ink text-[12px] text-soft">
            {columns.map((column, at) => (
              <td key={at} className={`pr-2 font-normal ${side(at)}`}>
                {column.title}
              </td>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((row, place) => (
          <tr key={place} className={row.strong ? "border-b border-ink font-bold" : "row-line"}>
            {row.cells.map((cell, at) => (
              <td key={at} className={`py-0.5 pr-2 align-top ${side(at)}`}>
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
