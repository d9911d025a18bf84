// Where a paper's boxes go, what they changed since it was opened, and what the paper is worth.
import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { Paper, PaperWorking } from "../api/types";
import { paperName } from "../desk/newPaper";
import { useDesk } from "../desk/useDesk";
import { NotesAt } from "../notes/NotesAt";
import { Files } from "../slips/Files";
import { balance, capital, dayOf, difference, exact, isZero, units } from "../ui/format";
import { Button } from "../ui/pieces";
import { Proof } from "./Proof";
import { putBack } from "./putBack";

export function PaperSide({ paper }: { paper: Paper }) {
  const { opened, edit, past } = useDesk();
  const { outcome } = opened;
  const [before] = useState({ outcome, paper });
  const back = putBack(paper, before.paper);
  const next = outcome.ways.find((way) => !isZero(way.more));
  const { feeds = [], drawn } = outcome.papers.find((p) => p.paper === paper.id) ?? {};
  const filled = Object.keys(paper.boxes ?? {}).length > 0 || (paper.rows ?? []).length > 0;
  const since = (now: string, then: string) => difference(String(Number(now) - Number(then)));
  return (
    <div className="space-y-5 p-4">
      {drawn?.workings.map((working) => (
        <HowItCame key={`${working.day} ${working.title}`} working={working} />
      ))}
      <section>
        <h2 className="mb-1.5">Where these boxes go</h2>
        {feeds.length === 0 && (
          <p className="text-soft">
            {filled ? "Into no line of this return so far." : "Nowhere yet: no box that counts is filled."}
          </p>
        )}
        {feeds.map((feed, i) => (
          <Link
            key={i}
            to="/h/$id/spread"
            params={{ id: opened.id }}
            search={{ line: feed.line, scopes: feed.scopes.join(","), trail: true }}
            className="row-line flex justify-between gap-3 py-1 hover:text-petrol"
          >
            <span>{feed.label}</span>
            <b>{units(feed.amount)}</b>
          </Link>
        ))}
      </section>
      <CountedAlready paper={paper} />
      <CarriedOver paper={paper} />
      <section>
        <h2 className="mb-1.5">Since you opened this paper</h2>
        <Pair label="Total tax" value={since(outcome.total, before.outcome.total)} />
        <Pair label="Balance" value={since(outcome.balance, before.outcome.balance)} />
        {outcome.authorities.length > 1 &&
          outcome.authorities.map(({ name, balance: now }) => {
            const then = before.outcome.authorities.find((one) => one.name === name)?.balance ?? "0";
            const words = isZero(String(Number(now) - Number(then)))
              ? balance(now)
              : `${balance(then)} → ${balance(now)}`;
            return <Pair key={name} label={capital(name)} value={words} />;
          })}
        {!past && back.length > 0 && (
          <p className="mt-1.5 flex items-center justify-between gap-2">
            <span className="text-soft">It is kept.</span>
            <Button onClick={() => edit(back)}>Throw it away</Button>
          </p>
        )}
      </section>
      <Worth paper={paper} />
      <section>
        <h2 className="mb-1.5">Now</h2>
        <Pair label={outcome.together} value={units(outcome.total)} />
        {next && <Pair label={next.but || next.name} value={difference(next.more)} />}
      </section>
      <Proof paper={paper} />
      <Files paper={paper} />
      <NotesAt place={{ paper: paper.id }} about={paperName(paper)} />
    </div>
  );
}

/** A result of the paper with the amounts that make it. */
function HowItCame({ working }: { working: PaperWorking }) {
  return (
    <section>
      <p className="text-soft">{dayOf(working.day)}</p>
      <h2 className="mb-1.5">{working.title}</h2>
      {working.parts.map(({ label, amount }) => (
        <div key={label} className="row-line flex justify-between gap-3 py-1">
          <span>{label}</span>
          <span className="whitespace-nowrap">{exact(amount)}</span>
        </div>
      ))}
      <div className="flex justify-between gap-3 border-b border-ink py-1 font-bold">
        <span>{working.result}</span>
        <span className="whitespace-nowrap">{exact(working.amount)}</span>
      </div>
      {working.note && <p className="mt-1.5 text-soft">{working.note}</p>}
    </section>
  );
}

/** What of an amount that earlier years left was used this year, and what goes on into the next. */
function CarriedOver({ paper }: { paper: Paper }) {
  const { opened } = useDesk();
  const names = paper.owners.map((one) => opened.household.people.find((p) => p.id === one.person)?.name);
  const here = opened.outcome.carried.filter(
    (one) => one.paper === paper.kind && names.every((name) => name && one.whose.split(", ").includes(name)),
  );
  return here.map((one) => (
    <section key={`${one.label} ${one.whose}`}>
      <h2 className="mb-1.5">{one.label}</h2>
      <Pair label="Came in from earlier years" value={units(one.came)} />
      {Number(one.came) > Number(one.amount) && (
        <Pair label="Used this year" value={units(String(Number(one.came) - Number(one.amount)))} />
      )}
      {Number(one.amount) > Number(one.came) && (
        <Pair label="More this year" value={units(String(Number(one.amount) - Number(one.came)))} />
      )}
      <Pair label="Left for the next year" value={units(one.amount)} />
    </section>
  ));
}

/** What other papers bring by themselves to where this one goes: it is not entered again. */
function CountedAlready({ paper }: { paper: Paper }) {
  const { opened, pack } = useDesk();
  const here = pack.counted.filter((c) => c.at === paper.kind);
  const brought = (opened.household.papers ?? []).flatMap((other) => {
    const boxes = here.filter((c) => c.from === other.kind).flatMap((c) => c.boxes);
    const filled = boxes.filter((box) => !isZero(String(other.boxes?.[box] ?? "0")));
    return filled.map((box) => ({ other, box, amount: String(other.boxes?.[box]) }));
  });
  if (brought.length === 0) return null;
  return (
    <section>
      <h2 className="mb-1.5">Counted already</h2>
      {brought.map(({ other, box, amount }) => (
        <Link
          key={`${other.id} ${box}`}
          to="/h/$id/papers"
          params={{ id: opened.id }}
          search={{ paper: other.id, field: box }}
          className="row-line flex justify-between gap-3 py-1 hover:text-petrol"
        >
          <span>
            {paperName(other)}, box{" "}
            {pack.paper_kinds.find((kind) => kind.id === other.kind)?.boxes.find((b) => b.id === box)
              ?.number || box}
          </span>
          <b>{units(amount)}</b>
        </Link>
      ))}
    </section>
  );
}

function Pair({ label, value }: { label: string; value: string }) {
  return (
    <div className="row-line flex justify-between gap-3 py-1">
      <span>{label}</span>
      <b className="whitespace-nowrap">{value}</b>
    </div>
  );
}

function Worth({ paper }: { paper: Paper }) {
  const { opened } = useDesk();
  const effect = useQuery({
    queryKey: ["effect", opened.id, opened.revision, paper.id],
    queryFn: ({ signal }) =>
      ask(
        api.GET("/api/households/{id}/effect", {
          params: { path: { id: opened.id }, query: { paper: paper.id } },
          signal,
        }),
      ),
  });
  const change = (amount: string) => (isZero(amount) ? "no change" : difference(amount));
  if (!effect.data) return null;
  return (
    <section>
      <h2 className="mb-1.5">What it does to the tax</h2>
      <Pair label={`Without ${paperName(paper)}`} value={change(effect.data.without)} />
      {effect.data.with_more && (
        <Pair label={`${units(effect.data.step)} more on it`} value={change(effect.data.with_more)} />
      )}
    </section>
  );
}
