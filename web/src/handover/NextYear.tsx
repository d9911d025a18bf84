// What is due when, with a calendar file; and what the year leaves to the next.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { useDesk } from "../desk/useDesk";
import { dayOf, precise } from "../ui/format";
import { Blank, Waiting } from "../ui/pieces";

export function useDates() {
  const { opened } = useDesk();
  const { id, revision } = opened;
  return useQuery({
    queryKey: ["dates", id, revision],
    queryFn: () => ask(api.GET("/api/households/{id}/dates", { params: { path: { id } } })),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
}

export function NextYear() {
  const { opened } = useDesk();
  const dates = useDates();
  if (dates.error) return <Blank title="This cannot be shown">{dates.error.message}</Blank>;
  if (!dates.data) return <Waiting what="Looking at the days…" />;
  return (
    <>
      <h3 className="mb-1 border-b border-ink pb-1">Days and instalments</h3>
      {dates.data.length === 0 && <p className="text-soft">No day of the year after is known yet.</p>}
      <ol>
        {dates.data.map((due) => (
          <li
            key={`${due.day} ${due.what} ${due.whose}`}
            className="row-line grid grid-cols-[6.5rem_1fr_auto] gap-x-2 py-1"
            title={`${due.words} ${due.cite}`}
          >
            <b className="font-semibold">{dayOf(due.day)}</b>
            <span>
              {due.what} <span className="text-soft">{due.whose}</span>
            </span>
            <b className="text-right">{due.amount ? precise(due.amount) : ""}</b>
          </li>
        ))}
      </ol>
      {dates.data.length > 0 && (
        <p className="mt-3">
          <a
            className="border border-rule bg-sheet px-3 py-1.5 hover:border-plum"
            href={`/api/households/${opened.id}/dates.ics`}
          >
            Calendar file
          </a>
        </p>
      )}
    </>
  );
}

/** On what the instalments rest, and what is carried over. */
export function NextYearSide() {
  const { opened } = useDesk();
  const dates = useDates();
  const { carried, year } = opened.outcome;
  const words = [...new Map((dates.data ?? []).map((due) => [due.words, due])).values()];
  return (
    <article className="bg-sheet p-5">
      <h2 className="mb-2 text-[17px]">What they rest on</h2>
      {words.map((due) => (
        <p key={due.words} className="row-line py-1.5">
          {due.words} <span className="text-soft">{due.cite}</span>
        </p>
      ))}
      <h2 className="mt-6 mb-2 text-[17px]">Carried to {year + 1}</h2>
      {carried.length === 0 && <p className="text-soft">Nothing is carried over.</p>}
      {carried.map((one) => (
        <p key={`${one.label} ${one.whose}`} className="row-line grid grid-cols-[1fr_auto] gap-x-3 py-1">
          <span>
            {one.label}{" "}
            <span className="text-soft">
              {one.whose} · into {one.paper}
            </span>
          </span>
          <b>{precise(one.amount)}</b>
        </p>
      ))}
    </article>
  );
}
