// What the authority assesses by itself of what it holds, beside what was keyed: the lines that differ, and the papers that make the
// difference.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { OwnReturn } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { AssessedLines, exactBalance } from "../ui/AssessedLines";
import { dayOf, precise } from "../ui/format";
import { Blank, Button, Waiting } from "../ui/pieces";

/** Asked anew for each revision: what differs moves with what is keyed. */
function useOwn() {
  const { opened } = useDesk();
  const { id, revision } = opened;
  return useQuery({
    queryKey: ["own-assessment", id, revision],
    queryFn: () => ask(api.GET("/api/households/{id}/own-assessment", { params: { path: { id } } })),
    retry: false,
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
}

/** What both come to, side by side. */
export function OwnTotals() {
  const own = useOwn();
  if (!own.data) return null;
  return (
    <>
      <h2 className="mb-1 text-[15px]">What it comes to</h2>
      {own.data.returns.map((of) => (
        <dl key={of.scope} className="mb-4 grid grid-cols-[1fr_auto] gap-y-1">
          <dt className="col-span-2 border-b border-ink pb-1 font-semibold">{of.whose}</dt>
          <dt>Here</dt>
          <dd className="text-right font-semibold">{exactBalance(of.balance)}</dd>
          <dt>By what it holds alone</dt>
          <dd className="text-right">{exactBalance(of.own_balance)}</dd>
          <dt className="text-soft">Total tax here</dt>
          <dd className="text-right text-soft">{precise(of.total)}</dd>
          <dt className="text-soft">Total tax by what it holds</dt>
          <dd className="text-right text-soft">{precise(of.own_total)}</dd>
        </dl>
      ))}
      <p className="text-soft">
        Nobody files where it knows all and nothing is claimed besides: then its own assessment stands. Else
        the return replaces it.
      </p>
    </>
  );
}

export function OwnAssessment() {
  const own = useOwn();
  if (own.error) return <Blank title="There is no assessment to show">{own.error.message}</Blank>;
  if (!own.data) return <Waiting what="Asking what it assesses by itself…" />;
  const { returns, not_held, not_keyed } = own.data;
  return (
    <article className="p-5">
      <h2 className="text-[17px]">The authority's own assessment</h2>
      <p className="mb-3 max-w-[68ch] text-soft">
        Made of what it holds alone, before anything is filed. Where a line differs, a paper below is the
        reason; what it does not know is for the return to tell.
      </p>
      <div className="grid grid-cols-2 gap-x-6">
        <Papers
          title="Keyed, and not held by it"
          papers={not_held}
          none="It holds every paper that was keyed."
        />
        <Papers
          title="Held, and not keyed so"
          papers={not_keyed}
          none="Every slip that it holds was keyed as it says."
        />
      </div>
      {returns.map((of) => (
        <OneReturn key={of.scope} of={of} />
      ))}
    </article>
  );
}

function OneReturn({ of }: { of: OwnReturn }) {
  const same = of.lines.length === 0 && of.total === of.own_total;
  return (
    <section className="mt-5" aria-label={of.whose}>
      <h3 className="mb-1 flex justify-between border-b border-ink pb-1">
        <b>{of.whose}</b>
        <span className="text-soft">as of {dayOf(of.on)}</span>
      </h3>
      <p className="mb-2 text-soft">
        {of.made_of.length > 0 ? `Made of ${of.made_of.join(", ")}.` : "It holds nothing of this person."}
      </p>
      <Taken of={of} />
      {same ? (
        <p>
          It assesses what was keyed: {precise(of.total)} tax, {exactBalance(of.balance)}.
        </p>
      ) : (
        <AssessedLines
          ours="here"
          lines={of.lines}
          totals={[
            { what: "Total tax", filed: of.total, assessed: of.own_total, told: precise },
            { what: "Balance", filed: of.balance, assessed: of.own_balance, told: exactBalance },
          ]}
        />
      )}
    </section>
  );
}

const ANSWERS = [
  { id: "accept", label: "Accept it", told: "Accepted: nothing is filed for this year." },
  { id: "change", label: "Change it by a return", told: "A return stands in its place." },
];

/** What becomes of it: left as it is, or changed by a return; and until when. */
function Taken({ of }: { of: OwnReturn }) {
  const { edit, past } = useDesk();
  const chosen = ANSWERS.find((answer) => answer.id === of.taken);
  const say = (value: string) =>
    void edit([
      {
        do: "answer_for",
        person: of.person,
        field: "own_assessment",
        value: value === of.taken ? null : value,
      },
    ]);
  return (
    <div className="mb-3">
      <div className="flex items-center gap-2">
        {ANSWERS.map((answer) => (
          <Button
            key={answer.id}
            tone={answer.id === of.taken ? "main" : "plain"}
            aria-pressed={answer.id === of.taken}
            disabled={past}
            onClick={() => say(answer.id)}
          >
            {answer.label}
          </Button>
        ))}
        <span className="text-soft">{chosen ? chosen.told : "Not decided yet."}</span>
      </div>
      {of.dates.length > 0 && (
        <table className="mt-2 w-full border-collapse">
          <tbody>
            {of.dates.map((due) => (
              <tr key={due.what} className="row-line align-baseline">
                <th scope="row" className="py-0.5 pr-3 text-left font-normal">
                  {due.what}
                </th>
                <td className={`pr-3 whitespace-nowrap ${due.day < of.on ? "text-soft" : "font-semibold"}`}>
                  by {dayOf(due.day)}
                  {due.day < of.on && ", over"}
                </td>
                <td className="text-soft">
                  {due.words} {due.cite}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function Papers({ title, papers, none }: { title: string; papers: string[]; none: string }) {
  return (
    <section>
      <h3 className="mb-1 border-b border-rule pb-1 text-plum">{title}</h3>
      {papers.length === 0 ? (
        <p className="text-soft">{none}</p>
      ) : (
        <ul>
          {papers.map((name, at) => (
            <li key={`${name} ${at}`}>{name}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
