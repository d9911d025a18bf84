// Filing: what it needs and what of it is there, the returns that go out, and what was filed.
import { Link } from "@tanstack/react-router";
import type { FilingNeed, FilingView, OneReturn, Place, ReturnFiled } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { balance, capital, moment, units } from "../ui/format";
import { Button, Diamond } from "../ui/pieces";
import type { useFiling } from "./useFilings";

export type FilingDeeds = ReturnType<typeof useFiling>;

type Props = {
  view: FilingView;
  deeds: FilingDeeds;
  looked: ReturnFiled | undefined;
  look: (filing: string) => void;
};

export function Filing({ view, deeds, looked, look }: Props) {
  const { past } = useDesk();
  const open = view.needs.filter((need) => need.blocks && !need.ready).length;
  const goesOut = view.returns.filter((one) => one.sending !== "as_filed" && !one.held_by);
  return (
    <>
      <h3 className="mb-1 flex justify-between border-b border-ink pb-1">
        What filing needs
        <span className="font-normal text-soft">{open === 0 ? "all of it is there" : `${open} missing`}</span>
      </h3>
      <ul>
        {view.needs.map((need) => (
          <OneNeed key={need.what} need={need} />
        ))}
      </ul>
      <h3 className="mt-5 mb-1 border-b border-ink pb-1">Returns</h3>
      <ul>
        {view.returns.map((one) => (
          <Going key={one.scope} one={one} />
        ))}
      </ul>
      {deeds.error && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-2 py-1">
          {deeds.error.message}
        </p>
      )}
      {!past && goesOut.length > 0 && (
        <div className="mt-3">
          <Button
            tone="main"
            disabled={deeds.busy || Boolean(view.why_not)}
            onClick={() => deeds.file.mutate()}
          >
            {deeds.file.isPending
              ? "Filing…"
              : goesOut.length === 1
                ? "File the return"
                : `File ${goesOut.length} returns`}
          </Button>
          {view.why_not && <p className="mt-1 text-soft">{view.why_not}</p>}
        </div>
      )}
      {view.filings.length > 0 && (
        <section className="mt-5">
          <h3 className="mb-1 border-b border-ink pb-1">Filed so far</h3>
          <ul>
            {view.filings.map((filing) => (
              <li key={filing.id} className={`row-line ${filing.id === looked?.id ? "bg-wash" : ""}`}>
                <button
                  type="button"
                  aria-current={filing.id === looked?.id || undefined}
                  className="grid w-full grid-cols-[1fr_auto] gap-x-3 px-2 py-1 text-left hover:bg-lilac"
                  onClick={() => look(filing.id)}
                >
                  <span>
                    <b className="font-semibold">{filing.number ?? "on its way"}</b> {filing.whose}
                  </span>
                  <b className={filing.state === "refused" ? "text-ochre" : "font-semibold"}>
                    {capital(filing.state === "sending" ? "no answer yet" : filing.state)}
                  </b>
                  <span className="col-span-2 text-[12px] text-soft">
                    {moment(filing.at)}, {filing.by} · revision {filing.revision}
                    {filing.amends && ` · amends ${filing.amends}`}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** What filing needs: a tick where it is there, a diamond where it is not. */
function OneNeed({ need }: { need: FilingNeed }) {
  return (
    <li className="row-line grid min-h-[27px] grid-cols-[20px_minmax(0,0.75fr)_minmax(0,1fr)_6.5rem] items-center gap-x-2 px-1">
      <span
        role="img"
        aria-label={need.ready ? "there" : need.blocks ? "missing, blocks" : "missing"}
        className="text-petrol"
      >
        {need.ready ? "✓" : <Diamond solid={need.blocks} />}
      </span>
      <span className={need.ready ? "" : "font-semibold"}>{need.what}</span>
      <span className="text-soft">{need.words}</span>
      {!need.ready && <GoTo place={need.place} consent={need.what === "Consent to file"} />}
    </li>
  );
}

/** One step to where something is settled. */
export function GoTo({ place, consent }: { place: Place | null | undefined; consent?: boolean }) {
  const { opened } = useDesk();
  const to = { params: { id: opened.id }, className: "text-right text-petrol underline" };
  if (consent) {
    return (
      <Link to="/h/$id/held" search={{}} {...to}>
        Ask for it
      </Link>
    );
  }
  if (place?.paper) {
    return (
      <Link to="/h/$id/papers" search={{ paper: place.paper, field: place.field || undefined }} {...to}>
        {place.field ? "Go to the box" : "Go to the paper"}
      </Link>
    );
  }
  if (place?.person) {
    return (
      <Link to="/h/$id/spread" search={{ person: place.person, field: place.field ?? undefined }} {...to}>
        Go there
      </Link>
    );
  }
  if (place?.field) {
    return (
      <Link to="/h/$id/spread" search={{ household: true, field: place.field }} {...to}>
        Go there
      </Link>
    );
  }
  return (
    <Link to="/h/$id/points" search={{}} {...to}>
      Open points
    </Link>
  );
}

const SENDING: Record<OneReturn["sending"], string> = {
  new: "goes out",
  as_filed: "as filed",
  amended: "amended, goes out",
};

function Going({ one }: { one: OneReturn }) {
  return (
    <li className="row-line grid min-h-[27px] grid-cols-[1fr_auto_auto] items-center gap-x-4 px-1">
      <span>
        {one.whose}{" "}
        <span className="text-soft">
          {one.authority && `· ${one.authority} · `}
          {one.forms} {one.forms === 1 ? "form" : "forms"}
        </span>
      </span>
      <span>
        {units(one.total)} <span className="text-soft">tax ·</span> {balance(one.balance)}
      </span>
      <span className={one.sending === "as_filed" ? "text-soft" : "font-semibold"}>
        {one.held_by ? "waits" : SENDING[one.sending]}
      </span>
      {one.held_by && <span className="col-span-3 pb-1 text-[12px] text-ochre">{one.held_by}</span>}
    </li>
  );
}
