// A table as the lines of a list: chosen, dropped or pasted; its columns matched, its faults told by line, and nothing
// stored before it is taken.
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { Command, Paper, PaperKind, TableRead } from "../api/types";
import { useDesk, words } from "../desk/useDesk";
import { count, exact } from "../ui/format";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

/** The largest table that is read, in bytes. */
const LARGEST = 3 * 1024 * 1024;
/** How many of its lines are shown. */
const SHOWN = 5;

type Props = { paper: Paper; kind: PaperKind; close: () => void };

export function TableIn({ paper, kind, close }: Props) {
  const { opened, edit } = useDesk();
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const looking = useMutation({
    mutationFn: (body: { text: string; columns?: (string | null)[] }) => {
      const path = { params: { path: { id: opened.id, paper: paper.id } } };
      return ask(api.POST("/api/households/{id}/papers/{paper}/table", { ...path, body }));
    },
    onError: (error) => setWrong(error.message),
    onSuccess: () => setWrong(null),
  });
  const look = (table: string) => {
    setText(table);
    looking.mutate({ text: table });
  };
  const read = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > LARGEST) {
      setWrong(
        `${file.name} has ${Math.round(file.size / 1024 / 1024)} MB; a table of at most 3 MB is read.`,
      );
      return;
    }
    look(await file.text());
  };
  const table = looking.data;
  const match = (at: number, column: string) => {
    const columns = (table?.columns ?? []).map((one) => one.column ?? null);
    columns[at] = column || null;
    looking.mutate({ text, columns });
  };
  const take = async () => {
    const commands = (table?.rows ?? []).map(
      (row): Command => ({
        do: "add_row",
        paper: paper.id,
        id: `r-${crypto.randomUUID().slice(0, 12)}`,
        row,
      }),
    );
    const refused = words(await edit(commands));
    setWrong(refused);
    if (refused === null) close();
  };
  return (
    <Sheet
      title={`Lines from a table for ${kind.id}`}
      about="A CSV with its headings in the first line. Nothing is stored before you take it."
      size="wide"
      onClose={close}
    >
      <div className="flex flex-wrap items-center gap-3">
        <input
          type="file"
          aria-label="A CSV file"
          accept=".csv,.txt,.tsv,text/csv"
          onChange={(event) => void read(event.target.files?.[0])}
        />
        <span className="text-soft">or paste it here:</span>
      </div>
      <textarea
        aria-label="The table"
        className="box mt-2 h-auto! py-1 font-mono text-[12px]"
        rows={table ? 2 : 6}
        placeholder={kind.columns
          .slice(0, 4)
          .map((column) => column.label)
          .join(",")}
        value={text.length > 20_000 ? `${text.slice(0, 20_000)}…` : text}
        onChange={(event) => look(event.target.value)}
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void read(event.dataTransfer.files[0]);
        }}
      />
      {wrong && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          {wrong}
        </p>
      )}
      {table && text && !looking.isError && (
        <Preview table={table} kind={kind} match={match} take={() => void take()} />
      )}
    </Sheet>
  );
}

type PreviewProps = {
  table: TableRead;
  kind: PaperKind;
  match: (at: number, column: string) => void;
  take: () => void;
};

function Preview({ table, kind, match, take }: PreviewProps) {
  const label = (id: string) => kind.columns.find((column) => column.id === id)?.label ?? id;
  const used = table.columns.flatMap((one) => (one.column ? [one.column] : []));
  return (
    <>
      <h3 className="mt-3 mb-1 border-b border-ink pb-1">Its columns</h3>
      <ul className="grid grid-cols-2 gap-x-6 max-md:grid-cols-1">
        {table.columns.map((one, at) => (
          <li key={at} className="row-line grid grid-cols-[1fr_1fr] items-center gap-2 py-0.5">
            <span className="truncate">{one.heading}</span>
            <select
              className="box"
              aria-label={`What ${one.heading} is`}
              value={one.column ?? ""}
              onChange={(event) => match(at, event.target.value)}
            >
              <option value="">left out</option>
              {kind.columns.map((column) => (
                <option
                  key={column.id}
                  value={column.id}
                  disabled={column.id !== one.column && used.includes(column.id)}
                >
                  {column.label}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
      <h3 className="mt-3 mb-1 border-b border-ink pb-1">Its lines</h3>
      <ul>
        {table.rows.slice(0, SHOWN).map((row, at) => (
          <li key={at} className="row-line truncate py-0.5">
            {Object.entries(row)
              .map(([id, entry]) => `${label(id)} ${String(entry)}`)
              .join(" · ")}
          </li>
        ))}
      </ul>
      {table.rows.length > SHOWN && <p className="text-soft">and {table.rows.length - SHOWN} more</p>}
      {table.faults.length > 0 && (
        <div role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          <b>{count(table.faulty, "line")} cannot be taken.</b>
          <ul className="max-h-40 overflow-auto">
            {table.faults.map((fault, at) => (
              <li key={at}>
                Line {fault.line}, {fault.heading}: {fault.message}
              </li>
            ))}
          </ul>
        </div>
      )}
      {table.there > 0 && (
        <p className="mt-2 border-l-4 border-plum bg-lilac px-3 py-1.5">
          {count(table.there, "line")} of these {table.there === 1 ? "stands" : "stand"} in the list already,
          word for word.
        </p>
      )}
      <div className="mt-3 flex items-center gap-3">
        <Button tone="main" disabled={table.rows.length === 0} onClick={take}>
          Take {count(table.rows.length, "line")}
        </Button>
        {table.sum && <span>together {exact(table.sum)}</span>}
      </div>
    </>
  );
}
