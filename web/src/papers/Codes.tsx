// The codes of a list's cells: what each means, whether it is open to the cell that is looked at, and what it would do there,
// tried before it is used.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { CellMade, Command, Drawn, Field, Paper, PaperKind, Supposed } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { balance, exact } from "../ui/format";
import { Button, Key } from "../ui/pieces";

type Props = {
  paper: Paper;
  kind: PaperKind;
  drawn: Drawn;
  /** The cell that is looked at. */
  cell: CellMade | undefined;
};

export function Codes({ paper, kind, drawn, cell }: Props) {
  const [tried, setTried] = useState<string>();
  return (
    <div className="mt-4 grid grid-cols-[1fr_19rem] gap-x-7 max-desk:grid-cols-1">
      <div>
        <p className="mb-1 text-soft">
          Type a code or two; <Key>Shift</Key> <Key>→</Key> writes it on into the next cell. {drawn.hint}
        </p>
        <ul className="grid grid-cols-2 gap-x-7 max-md:grid-cols-1">
          {drawn.codes.map(({ code, means }) => {
            const opening = cell?.open.find((one) => one.code === code);
            const closed = opening && !opening.open;
            return (
              <li key={code} className="flex items-baseline border-b border-rule">
                <button
                  type="button"
                  className="min-h-[24px] w-11 flex-none px-1 text-left font-bold hover:bg-wash disabled:text-ink aria-pressed:bg-wash"
                  aria-label={`Try ${code}`}
                  aria-pressed={tried === code}
                  disabled={!cell}
                  onClick={() => setTried(tried === code ? undefined : code)}
                >
                  {code}
                </button>
                <span className={`py-0.5 ${closed ? "text-soft" : ""}`}>
                  {means}{" "}
                  {opening && (
                    <span className={`text-[12px] ${closed ? "text-soft" : "text-petrol"}`}>
                      · {opening.words}
                    </span>
                  )}
                </span>
              </li>
            );
          })}
        </ul>
      </div>
      {cell && tried ? (
        <Tried
          key={`${cell.row} ${cell.column} ${tried}`}
          paper={paper}
          kind={kind}
          cell={cell}
          code={tried}
          close={() => setTried(undefined)}
        />
      ) : (
        <p className="self-start border-t-2 border-rule pt-2 text-soft">
          {cell
            ? "Press a code to see what it would do in the month that you look at."
            : "Go to a month, and press a code to see what it would do there."}
        </p>
      )}
    </div>
  );
}

/** From the first to the last of these columns. */
function span(columns: Field[]) {
  const [first, last] = [columns[0]?.label ?? "", columns.at(-1)?.label ?? ""];
  return first === last ? first : `${first} to ${last}`;
}

type TriedProps = {
  paper: Paper;
  kind: PaperKind;
  cell: CellMade;
  code: string;
  close: () => void;
};

function Tried({ paper, kind, cell, code, close }: TriedProps) {
  const { edit, past } = useDesk();
  const fills = cell.open.find((one) => one.code === code)?.fills ?? [];
  const columns = kind.columns.filter(({ id }) =>
    fills.length > 0 ? fills.includes(id) : id === cell.column,
  );
  const commands = columns.map(
    ({ id }): Command => ({ do: "set_cell", paper: paper.id, row: cell.row, field: id, value: code }),
  );
  const then = useSupposed(commands);
  const where = span(columns);
  return (
    <section aria-label={`With ${code} instead`} className="self-start border-t-2 border-petrol pt-2">
      <h3>
        With {code} for {where} instead
      </h3>
      <div aria-live="polite">
        {then.error && <p className="text-ochre">{then.error.message}</p>}
        {!then.data && !then.error && <p className="text-soft">Trying it…</p>}
        {then.data && <Moved then={then.data} />}
      </div>
      <div className="mt-2 flex gap-2">
        <Button
          tone="main"
          disabled={past}
          onClick={() => void edit(commands).then((refused) => refused === null && close())}
        >
          Use {code} for {where}
        </Button>
        <Button onClick={close}>Leave it</Button>
      </div>
    </section>
  );
}

function Moved({ then }: { then: Supposed }) {
  const rows = then.sections.flatMap((section) => section.rows);
  const told = (row: (typeof rows)[number], amount: unknown) =>
    row.balance ? balance(String(amount ?? "0")) : exact(String(amount ?? "0"));
  if (rows.length === 0) return <p className="py-1">No figure would change.</p>;
  return (
    <>
      {then.sections.map((section) => (
        <table key={section.title} className="mt-1 w-full">
          <caption className="text-left text-[12px] text-soft">{section.title}</caption>
          <tbody>
            {section.rows.map((row) => (
              <tr key={row.label} className={`row-line ${row.result ? "font-bold" : ""}`}>
                <th scope="row" className="py-0.5 pr-2 text-left font-[inherit]">
                  {row.label}
                </th>
                <td className="text-right whitespace-nowrap">
                  {told(row, row.was)} → <span className="text-petrol">{told(row, row.now)}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      {!then.covered && (
        <p className="mt-1 text-soft">The figures are then no result: an open point says why.</p>
      )}
    </>
  );
}

/** What the results would be after these commands, asked anew with each revision. */
function useSupposed(commands: Command[]) {
  const { opened } = useDesk();
  const params = { path: { id: opened.id } };
  return useQuery({
    queryKey: ["supposed", opened.id, opened.revision, commands],
    queryFn: () => ask(api.POST("/api/households/{id}/supposed", { params, body: { commands } })),
  });
}
