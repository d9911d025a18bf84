// Schedules: the official forms of each return, line by line, and why a form is not filed.
import { useQuery } from "@tanstack/react-query";
import { useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { Authority, FormOutcome, FormRow, Opened, ReturnSchedules } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { useProgress } from "../handover/useProgress";
import { formFar } from "../points/far";
import type { Standing } from "../router";
import { Trail } from "../trail/Trail";
import { balance, count, units } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Mark } from "../ui/Mark";
import { Blank, Button, Key, Waiting } from "../ui/pieces";
import { amountThere, type Beside, useBeside } from "./compare";
import { FormSheet } from "./FormSheet";
import { isToTick, type Ticked, useTicks } from "./useTicks";

/** A form of a return. */
export type Filed = { of: ReturnSchedules; form: FormOutcome };

const keyOf = ({ of, form }: Filed) => `${of.scope}:${form.id}`;

function useSchedules() {
  const { opened } = useDesk();
  const path = { id: opened.id, revision: opened.revision };
  return useQuery({
    queryKey: ["schedules", opened.id, opened.revision],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/revisions/{revision}/schedules", { params: { path }, signal })),
    placeholderData: (before, query) => (query?.queryKey[1] === opened.id ? before : undefined),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function SchedulesView() {
  const schedules = useSchedules();
  if (schedules.error) return <Blank title="The forms cannot be shown">{schedules.error.message}</Blank>;
  if (!schedules.data) return <Waiting what="Filling in the forms…" />;
  return <Schedules returns={schedules.data} />;
}

function Schedules({ returns }: { returns: ReturnSchedules[] }) {
  const { opened } = useDesk();
  const standing = useSearch({ from: "/h/$id" });
  const navigate = useNavigate();
  const filed = returns.flatMap((of) => of.forms.filter((f) => f.required).map((form) => ({ of, form })));
  const here = filed.find((f) => keyOf(f) === standing.form) ?? filed[0];
  const stand = (search: Standing) =>
    void navigate({ to: "/h/$id/schedules", params: { id: opened.id }, search, replace: true });
  const open = (form: Filed | undefined) => form && stand({ form: keyOf(form) });
  const step = (by: number) => () => here && open(filed[filed.indexOf(here) + by]);
  useKeys({ "]": step(1), "[": step(-1), Escape: () => open(here), t: () => standing.line && open(here) });
  const ticked = useTicks();
  const [beside, setBeside] = useState<Beside>();
  const there = useBeside(beside).data;
  const [only, setOnly] = useState<Only>("all");
  if (!here) return <Blank title="No return is filed in this way" />;
  const other = (row: FormRow) => there && amountThere(row, returns, there);
  const differs = (row: FormRow) => Number(other(row) ?? 0) !== Number(row.amount ?? 0);
  const shown = (row: FormRow) =>
    only === "all" || (only === "open" ? isToTick(row) && !ticked.of(row) : differs(row));
  const mark = (row: FormRow) => stand({ form: keyOf(here), line: row.line, scopes: row.scope, trail: true });
  const from = (id: string) => open(filed.find((f) => f.of === here.of && f.form.id === id));
  return (
    <div className="grid h-full grid-cols-[310px_1fr_392px] max-desk:block max-desk:overflow-auto print:block">
      <nav
        aria-label="Forms"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink pb-6 print:hidden"
      >
        {returns.map((of) => (
          <FormList key={of.scope} of={of} here={here} open={open} ticked={ticked} />
        ))}
      </nav>
      <section aria-label="Form" tabIndex={0} className="min-h-0 overflow-auto bg-sheet print:hidden">
        <Checking
          filed={here}
          ticked={ticked}
          beside={beside}
          setBeside={setBeside}
          only={only}
          setOnly={setOnly}
        />
        <FormSheet
          filed={here}
          marked={standing}
          mark={mark}
          from={from}
          ticked={ticked}
          beside={there && beside !== undefined ? { title: titleOf(beside, opened), of: other } : undefined}
          only={shown}
        />
        <p className="flex flex-wrap gap-x-3 px-6 pb-4 text-soft">
          <span>
            <Key>↑</Key> <Key>↓</Key> walk
          </span>
          <span>
            <Key>[</Key> <Key>]</Key> the form before, the next
          </span>
          <span>
            <Key>Space</Key> found right
          </span>
          <span>
            <Key>↵</Key> its trail
          </span>
        </p>
      </section>
      <aside
        aria-label="About the marked line"
        tabIndex={0}
        className="flex min-h-0 flex-col overflow-auto border-l border-ink print:hidden"
      >
        {standing.line ? (
          <Trail
            line={standing.line}
            scopes={standing.scopes ?? ""}
            stand={(next) => stand({ ...(next.trail ? next : {}), form: keyOf(here) })}
          />
        ) : (
          <About returns={returns} filed={filed} />
        )}
      </aside>
      <div className="hidden print:block">
        {!opened.outcome.covered && (
          <p className="px-6">
            <b>The figures are not a result</b>: an open point holds them up.
          </p>
        )}
        {filed.map((f) => (
          <FormSheet key={keyOf(f)} filed={f} marked={{}} />
        ))}
      </div>
    </div>
  );
}

/** Which lines of a form are shown. */
type Only = "all" | "open" | "differing";

function titleOf(beside: Beside, opened: Opened) {
  if (beside === "before") return String(opened.household.year - 1);
  if (beside === "filed") return "as filed";
  if (beside === "assessed") return "as assessed";
  const way = typeof beside === "number" ? opened.outcome.ways[beside] : undefined;
  return way?.but || way?.name || "";
}

/** What is chosen in the list. */
function besideOf(value: string): Beside {
  if (value === "") return undefined;
  return value === "before" || value === "filed" || value === "assessed" ? value : Number(value);
}

type CheckingProps = {
  filed: Filed;
  ticked: Ticked;
  beside: Beside;
  setBeside: (beside: Beside) => void;
  only: Only;
  setOnly: (only: Only) => void;
};

/** What the form stands beside, which lines are shown, and ticking off all of them. */
function Checking({ filed, ticked, beside, setBeside, only, setOnly }: CheckingProps) {
  const { opened } = useDesk();
  const progress = useProgress(opened.id, opened.revision).data;
  const ways = opened.outcome.ways.slice(1, 8);
  const rows = filed.form.rows.filter(isToTick);
  const open = rows.filter((row) => !ticked.of(row));
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule px-6 py-1.5">
      <select
        aria-label="Beside it"
        className="box w-auto!"
        value={beside ?? ""}
        onChange={(event) => {
          const { value } = event.target;
          setBeside(besideOf(value));
          if (value === "" && only === "differing") setOnly("all");
        }}
      >
        <option value="">Beside nothing</option>
        {progress?.filed_revision && <option value="filed">Beside what was filed</option>}
        {progress?.moves.some((move) => move.to === "assessed") && (
          <option value="assessed">Beside the authority's assessment</option>
        )}
        {opened.household.before && <option value="before">Beside {opened.household.year - 1}</option>}
        {ways.map((way, at) => (
          <option key={`${way.name} ${way.but} ${way.total}`} value={at + 1}>
            Beside: {way.but || way.name}
          </option>
        ))}
      </select>
      <select
        aria-label="Lines shown"
        className="box w-auto!"
        value={only}
        onChange={(event) => setOnly(event.target.value as Only)}
      >
        <option value="all">Every line</option>
        <option value="open">Only lines not ticked</option>
        {beside !== undefined && <option value="differing">Only what differs</option>}
      </select>
      <Button
        tone="quiet"
        className="ml-auto"
        onClick={() => ticked.set(open.length > 0 ? open : rows, open.length > 0)}
      >
        {open.length > 0 ? `Tick off all ${open.length}` : "Take all ticks back"}
      </Button>
      {ticked.error && (
        <p role="alert" className="text-ochre">
          {ticked.error.message}
        </p>
      )}
    </div>
  );
}

/** Every return made again from its lines alone, without the rules, and whether it came out the same. */
function ReckonedAgain({ returns }: { returns: ReturnSchedules[] }) {
  const sums = returns.reduce((all, { again }) => all + again.sums, 0);
  const apart = returns.flatMap(({ again }) => again.apart);
  if (sums === 0) return null;
  return (
    <p className="text-soft">
      <b className={apart.length > 0 ? "text-ochre" : "text-petrol"}>Reckoned again</b> from the lines of the
      forms alone, without the rules:{" "}
      {apart.length === 0
        ? `all ${count(sums, "result")} agree to the cent.`
        : `${apart.length} of ${count(sums, "result")} differ.`}
    </p>
  );
}

type ListProps = { of: ReturnSchedules; here: Filed; open: (form: Filed) => void; ticked: Ticked };

/** The forms of a return: those filed, those kept, and the others with the reason. */
function FormList({ of, here, open, ticked }: ListProps) {
  const { opened } = useDesk();
  const filed = of.forms.filter((f) => f.required && !f.kept);
  const kept = of.forms.filter((f) => f.required && f.kept);
  const others = of.forms.filter((f) => !f.required);
  const entry = (form: FormOutcome) => {
    const chosen = here.of === of && here.form === form;
    return (
      <button
        key={form.id}
        type="button"
        aria-current={chosen || undefined}
        onClick={() => open({ of, form })}
        className={`row-line grid min-h-[26px] w-full grid-cols-[124px_1fr] items-center gap-x-2 px-3.5 text-left hover:bg-wash ${chosen ? "bg-wash" : ""}`}
      >
        <b className="flex items-center gap-1.5 font-semibold">
          <Mark far={formFar(form, opened, ticked)} of={form.name} />
          {form.name}
        </b>
        <span className="flex justify-between gap-2">
          {form.title}
          <Ticks form={form} ticked={ticked} />
        </span>
      </button>
    );
  };
  const [names, caption] = of.whose.split(" · ");
  return (
    <section className="pt-3">
      <h2 className="px-3.5 leading-tight">{names}</h2>
      <p className="px-3.5 pb-1 text-[12px] text-soft">
        {caption} · {count(filed.length, "form")} filed
      </p>
      {filed.map(entry)}
      {kept.length > 0 && <h3 className="px-3.5 pt-3 pb-0.5 text-soft">Kept with it, not filed</h3>}
      {kept.map(entry)}
      {others.length > 0 && <h3 className="px-3.5 pt-3 pb-0.5 text-soft">Not filed, and why</h3>}
      {others.map((form) => (
        <p
          key={form.id}
          className="row-line grid min-h-[26px] grid-cols-[124px_1fr] items-center gap-x-2 px-3.5 py-1 text-soft"
        >
          <span>{form.name}</span>
          <span className="text-[12px] leading-tight">{form.why_not}</span>
        </p>
      ))}
    </section>
  );
}

/** How many lines of a form were found right. */
function Ticks({ form, ticked }: { form: FormOutcome; ticked: Ticked }) {
  const rows = form.rows.filter(isToTick);
  const right = rows.filter((row) => ticked.of(row)).length;
  if (right === 0) return null;
  const all = right === rows.length;
  return (
    <span className="text-[12px] whitespace-nowrap text-petrol">
      {all ? "✓ all" : `✓ ${right} of ${rows.length}`}
    </span>
  );
}

/** Where no line is marked: what the view is for, and the pack on paper. */
function About({ returns, filed }: { returns: ReturnSchedules[]; filed: Filed[] }) {
  const { opened } = useDesk();
  const lines = filed.reduce((sum, f) => sum + f.form.rows.length, 0);
  return (
    <div className="space-y-3 p-4">
      <h2 className="text-[15px]">{opened.household.year} on the official forms</h2>
      {opened.outcome.planning && (
        <p className="text-ochre">
          For planning: the forms of the year are not out, these are the latest ones.
        </p>
      )}
      <p className="text-soft">
        {count(filed.filter((f) => !f.form.kept).length, "form")} of {count(returns.length, "return")},{" "}
        {count(lines, "line")}: each under its printed number. Choose a line to see how it came to be, down to
        the boxes of the papers.
      </p>
      {!opened.outcome.covered && (
        <p>
          <b>The figures are not a result</b> while an open point holds them up.
        </p>
      )}
      <table className="w-full border-t border-ink">
        <tbody>
          {opened.outcome.authorities.map((a) => (
            <Due key={a.name} authority={a} />
          ))}
        </tbody>
      </table>
      <ReckonedAgain returns={returns} />
      <Button onClick={() => window.print()}>Print all forms</Button>
    </div>
  );
}

/** What all returns come to for one authority. */
function Due({ authority }: { authority: Authority }) {
  const rows = [
    ["Total tax", units(authority.total)],
    ["Paid", units(authority.paid)],
    ["Balance", balance(authority.balance)],
  ];
  return rows.map(([what, amount], i) => (
    <tr key={what} className="row-line h-[25px]">
      <th scope="row" className="text-left font-normal">
        {what}
        {i === 0 && <span className="text-soft"> · {authority.name}</span>}
      </th>
      <td className="text-right font-semibold">{amount}</td>
    </tr>
  ));
}
