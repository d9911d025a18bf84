// What was filed: its receipt, why it was refused and where, what is asked for, and the assessment beside it.
import { useState } from "react";
import type { AskedDocument, Household, ReturnFiled } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { AssessedLines, exactBalance } from "../ui/AssessedLines";
import { balance, capital, count, dayOf, isZero, moment, precise, units } from "../ui/format";
import { Button } from "../ui/pieces";
import { type FilingDeeds, GoTo } from "./Filing";

export function Receipt({ filing, deeds }: { filing: ReturnFiled; deeds: FilingDeeds }) {
  const { opened, past } = useDesk();
  const waits = filing.state === "received" || filing.state === "accepted";
  return (
    <article className="bg-sheet p-5">
      <h2 className="text-[17px]">
        {capital(filing.state === "sending" ? "on its way" : filing.state)}
        {filing.number && ` · receipt ${filing.number}`}
      </h2>
      <p className="mb-3 text-soft">{filing.whose}</p>
      <dl className="grid grid-cols-[8rem_1fr] gap-y-1">
        <Told what="Came in" words={filing.received_at ? moment(filing.received_at) : "no answer yet"} />
        <Told what="Sent" words={`${moment(filing.at)}, ${filing.by}, from revision ${filing.revision}`} />
        {filing.amends && <Told what="Amends" words={filing.amends} />}
        <Told what="Checksum" words={filing.checksum} />
      </dl>
      <div className="mt-3 flex flex-wrap gap-2">
        {waits && !past && (
          <Button tone="main" disabled={deeds.busy} onClick={() => deeds.look.mutate(filing.id)}>
            {deeds.look.isPending ? "Asking…" : "Ask what became of it"}
          </Button>
        )}
        {filing.number && (
          <a
            className="border border-rule bg-sheet px-3 py-1.5 hover:border-plum"
            href={`/api/households/${opened.id}/filings/${filing.id}/receipt`}
          >
            Receipt as PDF
          </a>
        )}
      </div>
      {filing.refusals.length > 0 && (
        <section className="mt-4">
          <h3 className="mb-1 border-b border-ink pb-1">Why it was refused</h3>
          <ul>
            {filing.refusals.map((refusal) => (
              <li key={refusal.words} className="row-line grid grid-cols-[1fr_auto] gap-x-3 py-1">
                <b className="font-semibold">{refusal.words}</b>
                <GoTo place={refusal.place} />
              </li>
            ))}
          </ul>
          <p className="mt-1 text-soft">
            A refused return counts as not filed. What is changed goes through the review again.
          </p>
        </section>
      )}
      {filing.documents.length > 0 && <Documents filing={filing} deeds={deeds} />}
      {filing.assessment && <Assessment filing={filing} />}
    </article>
  );
}

function Told({ what, words }: { what: string; words: string }) {
  return (
    <>
      <dt className="text-soft">{what}</dt>
      <dd className="break-all">{words}</dd>
    </>
  );
}

function Documents({ filing, deeds }: { filing: ReturnFiled; deeds: FilingDeeds }) {
  return (
    <section className="mt-4">
      <h3 className="mb-1 border-b border-ink pb-1">Asked for by the authority</h3>
      {filing.documents.map((document) => (
        <div key={document.id} className="row-line py-1">
          <p className="flex justify-between gap-3">
            <b className="font-semibold">{document.words}</b>
            <span className={isNear(document) ? "font-semibold text-ochre" : "text-soft"}>
              by {dayOf(document.due)}
              {typeof document.sent !== "string" && left(document.days_left)}
            </span>
          </p>
          {document.counted && <p className="text-[12px] text-soft">{document.counted}</p>}
          {typeof document.sent === "string" ? (
            <p>
              <span className="text-petrol">✓</span> Sent:{" "}
              {[document.sent, ...document.files].filter(Boolean).join(" · ")}
            </p>
          ) : (
            <SendDocument filing={filing.id} document={document} deeds={deeds} />
          )}
        </div>
      ))}
      {filing.refund_held && (
        <p className="mt-2 border-l-4 border-ochre bg-sand px-2 py-1">
          The refund is held until everything that is asked for is there.
        </p>
      )}
    </section>
  );
}

/** What is sent: in words, with files of the household's papers, or both. */
function SendDocument({
  filing,
  document,
  deeds,
}: {
  filing: string;
  document: AskedDocument;
  deeds: FilingDeeds;
}) {
  const { opened } = useDesk();
  const [words, setWords] = useState("");
  const [going, setGoing] = useState<string[]>([]);
  const files = filesOf(opened.household);
  const mark = (id: string, goes: boolean) =>
    setGoing((now) => (goes ? [...now, id] : now.filter((one) => one !== id)));
  return (
    <form
      className="mt-1"
      onSubmit={(event) => {
        event.preventDefault();
        deeds.send.mutate({ filing, document: document.id, words, files: going });
      }}
    >
      {files.map(({ file, paper }) => (
        <label key={file.id} className="mb-1 flex items-baseline gap-2">
          <input
            type="checkbox"
            checked={going.includes(file.id)}
            onChange={(event) => mark(file.id, event.target.checked)}
          />
          <span className="min-w-0 break-words">
            {file.name} <span className="text-soft">· {paper}</span>
          </span>
        </label>
      ))}
      {files.length === 0 && (
        <p className="mb-1 text-[12px] text-soft">
          A file that is kept with a paper can be sent along: drop it on the paper.
        </p>
      )}
      <span className="flex gap-2">
        <input
          className="box"
          aria-label={`What is sent: ${document.words}`}
          placeholder="What is sent, and how"
          required={going.length === 0}
          maxLength={300}
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <Button type="submit" className="flex-none" disabled={deeds.busy}>
          {going.length === 0 ? "Sent" : `Send ${count(going.length, "file")}`}
        </Button>
      </span>
    </form>
  );
}

/** The files of a household's papers, each once, with the paper that has it. */
function filesOf({ papers = [] }: Household) {
  const all = papers.flatMap((paper) =>
    (paper.files ?? []).map((file) => ({ file, paper: [paper.kind, paper.title].filter(Boolean).join(" ") })),
  );
  return all.filter(({ file }, at) => all.findIndex((one) => one.file.id === file.id) === at);
}

/** Within how many days before its last one a document that is not sent stands out. */
const NEAR = 7;

function isNear({ sent, days_left }: AskedDocument) {
  return typeof sent !== "string" && typeof days_left === "number" && days_left <= NEAR;
}

function left(days: number | null | undefined) {
  if (typeof days !== "number") return "";
  return days < 0 ? " · over" : ` · ${count(days, "day")} left`;
}

/** The assessment beside what was filed: only the lines that differ, and why. */
function Assessment({ filing }: { filing: ReturnFiled }) {
  const assessed = filing.assessment;
  if (!assessed) return null;
  const apart = String(Number(assessed.balance) - Number(assessed.filed_balance));
  return (
    <section className="mt-4">
      <h3 className="mb-1 border-b border-ink pb-1">Assessed on {dayOf(assessed.on)}</h3>
      {isZero(apart) && assessed.lines.length === 0 ? (
        <p>
          As it was filed: {units(assessed.total)} tax, {balance(assessed.balance)}.
        </p>
      ) : (
        <>
          <AssessedLines
            ours="filed"
            lines={assessed.lines}
            totals={[
              { what: "Total tax", filed: assessed.filed_total, assessed: assessed.total, told: precise },
              {
                what: "Balance",
                filed: assessed.filed_balance,
                assessed: assessed.balance,
                told: exactBalance,
              },
            ]}
          />
          {assessed.otherwise.length > 0 && (
            <ul className="mt-2">
              {assessed.otherwise.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
          )}
        </>
      )}
    </section>
  );
}
