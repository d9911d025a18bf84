// A figure of the practice's own in place of one of the rules: what it would change is weighed before it is kept.
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { Moved, Replaced, RuleFigures, Weighed } from "../api/types";
import { count, difference, moment, units } from "../ui/format";
import { Button, Meter } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { figure, type Place } from "./figures";

/** A figure of a year as it is shown. */
export type Figure = Place & { name: string; value: string };

type Props = { law: string; place: Figure; record: Replaced[]; may: boolean; onClose: () => void };

export function Replacing({ law, place, record, may, onClose }: Props) {
  const now = record.find((one) => !one.ended_at);
  return (
    <Sheet
      title={`${place.name}, ${place.year}: ${figure(place.value)}`}
      about={
        now
          ? "A figure of the practice's own counts here."
          : "The figure of the rules counts here; nothing was replaced."
      }
      size="wide"
      onClose={onClose}
    >
      <ol className="mb-4">
        {record.map((one) => (
          <Record key={one.id} one={one} />
        ))}
      </ol>
      {may && now && <TakeBack law={law} place={place} replaced={now} onClose={onClose} />}
      {may && now && <h3 className="mb-2 font-semibold">Replace it again</h3>}
      {may && <Replace law={law} place={place} onClose={onClose} />}
    </Sheet>
  );
}

function Record({ one }: { one: Replaced }) {
  return (
    <li className="row-line grid grid-cols-[112px_1fr] gap-x-3 py-1">
      <span className="text-soft">{moment(one.at)}</span>
      <span>
        <b className="font-semibold">
          {figure(one.was)} → {figure(one.value)}
        </b>{" "}
        by {one.by}. {one.why}
        <span className="block text-soft">Source: {one.source}</span>
        {one.ended_at && (
          <span className="block text-soft">
            Ended {moment(one.ended_at)} by {one.ended_by}
          </span>
        )}
      </span>
    </li>
  );
}

type Weighing = {
  becomes: string;
  was: string;
  reached: number;
  weighed: number;
  moved: Moved[];
  done: boolean;
};

/** Weighs a figure in every household of its year, a few an answer. */
function useWeighing(law: string, place: Place) {
  const [found, setFound] = useState<Weighing>();
  const [fault, setFault] = useState("");
  const run = useRef(0);
  useEffect(() => {
    return () => {
      run.current = -1;
    };
  }, []);
  const clear = () => {
    run.current += 1;
    setFound(undefined);
    setFault("");
  };
  const weigh = async (value: string | undefined) => {
    clear();
    const mine = run.current;
    let all: Weighing | undefined;
    let after: string | null = null;
    try {
      do {
        const some: Weighed = await ask(weighSome(law, place, value, after));
        if (run.current !== mine) return;
        after = some.after ?? null;
        all = {
          ...some,
          weighed: (all?.weighed ?? 0) + some.weighed,
          moved: [...(all?.moved ?? []), ...some.moved],
          done: after === null,
        };
        setFound(all);
      } while (after !== null);
    } catch (refusal) {
      if (run.current === mine) setFault((refusal as Refusal).message);
    }
  };
  return { found, fault, weigh, clear, setFault };
}

function weighSome(
  law: string,
  { year, table, figure }: Place,
  value: string | undefined,
  after: string | null,
) {
  const body = { year, table, figure, value, after };
  return api.POST("/api/packs/{id}/figures/weigh", { params: { path: { id: law } }, body });
}

/** The figures after a change, shown at once; what was reckoned by the earlier ones is fetched anew. */
function useKept(law: string) {
  const queries = useQueryClient();
  return (figures: RuleFigures) => {
    queries.setQueryData(["figures", law], figures);
    void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "figures" });
  };
}

function Replace({ law, place, onClose }: Omit<Props, "record" | "may">) {
  const weighing = useWeighing(law, place);
  const { found, setFault } = weighing;
  const kept = useKept(law);
  const form = useRef<HTMLFormElement>(null);
  const typed = () =>
    Object.fromEntries([...new FormData(form.current ?? undefined)].map(([k, v]) => [k, String(v)]));
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { value = "", source = "", why = "" } = typed();
    if (!found?.done) return weighing.weigh(value);
    try {
      const { year, table, figure } = place;
      const body = { year, table, figure, was: found.was, value, source, why };
      kept(await ask(api.POST("/api/packs/{id}/figures", { params: { path: { id: law } }, body })));
      onClose();
    } catch (refusal) {
      setFault((refusal as Refusal).message);
    }
  };
  return (
    <form
      ref={form}
      onSubmit={(event) => void submit(event)}
      className="grid grid-cols-[1fr_2fr] gap-x-4 gap-y-3"
    >
      <label>
        The practice's figure
        <input name="value" className="box" required autoComplete="off" onChange={weighing.clear} />
      </label>
      <label>
        Source
        <input name="source" className="box" required maxLength={500} placeholder="Where it is published" />
      </label>
      <label className="col-span-2">
        Why
        <input
          name="why"
          className="box"
          required
          maxLength={500}
          placeholder="What changed, and since when"
        />
      </label>
      <div className="col-span-2">
        <Outcome {...weighing} />
        <Button type="submit" tone="main" disabled={found !== undefined && !found.done}>
          {found?.done ? `Count ${figure(found.becomes)} from now on` : "Weigh the change"}
        </Button>
      </div>
    </form>
  );
}

function TakeBack({ law, place, replaced, onClose }: Omit<Props, "record" | "may"> & { replaced: Replaced }) {
  const weighing = useWeighing(law, place);
  const { found, setFault } = weighing;
  const kept = useKept(law);
  const go = async () => {
    if (!found?.done) return weighing.weigh(undefined);
    try {
      const path = { id: law, replaced: replaced.id };
      kept(await ask(api.DELETE("/api/packs/{id}/figures/{replaced}", { params: { path } })));
      onClose();
    } catch (refusal) {
      setFault((refusal as Refusal).message);
    }
  };
  return (
    <div className="mb-5 border-b border-rule pb-4">
      <Outcome {...weighing} />
      <Button onClick={() => void go()} disabled={found !== undefined && !found.done}>
        {found?.done
          ? `Count ${figure(found.becomes)} of the rules again`
          : "Back to the figure of the rules"}
      </Button>
    </div>
  );
}

/** Which households move, as far as they were weighed. */
function Outcome({ found, fault }: { found: Weighing | undefined; fault: string }) {
  if (fault)
    return (
      <p role="alert" className="mb-3 text-ochre">
        {fault}
      </p>
    );
  if (!found) return null;
  const { moved, weighed, reached, done } = found;
  const sum = moved.reduce((sum, one) => sum + Number(one.after.total) - Number(one.before.total), 0);
  return (
    <div className="mb-3" role="status">
      <p>
        {figure(found.was)} → <b className="font-semibold">{figure(found.becomes)}</b>.{" "}
        {done
          ? `${count(weighed, "household")} weighed, ${moved.length} would move${moved.length > 0 ? `, in all by ${difference(String(sum))}` : ""}.`
          : `Weighing ${weighed} of ${count(reached, "household")}…`}
      </p>
      {!done && <Meter part={weighed} whole={reached} label="How many are weighed" />}
      {moved.length > 0 && (
        <section className="mt-2 max-h-60 overflow-auto" tabIndex={0} aria-label="Households that would move">
          <table className="w-full">
            <thead>
              <tr className="border-b border-ink text-left">
                <th className="py-0.5 font-semibold">Household</th>
                <th className="py-0.5 text-right font-semibold">Total now</th>
                <th className="py-0.5 text-right font-semibold">Then</th>
                <th className="py-0.5 text-right font-semibold">Difference</th>
              </tr>
            </thead>
            <tbody>
              {moved.map((one) => (
                <tr key={one.id} className="row-line">
                  <th scope="row" className="py-0.5 text-left font-normal">
                    {one.name}
                    {!one.after.covered && <span className="text-soft"> (not all computed)</span>}
                  </th>
                  <td className="py-0.5 text-right tabular-nums">{units(one.before.total)}</td>
                  <td className="py-0.5 text-right tabular-nums">{units(one.after.total)}</td>
                  <td className="py-0.5 text-right tabular-nums">
                    {difference(String(Number(one.after.total) - Number(one.before.total)))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </div>
  );
}
