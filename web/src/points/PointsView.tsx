// Open points: what blocks and what deserves a look at the left, each answered where it stands or one step away; at the
// right its rule and what answering does; below what is left blank.
import { Link } from "@tanstack/react-router";
import { Fragment, useEffect, useRef, useState } from "react";
import type { Command, Entry, Field, Place, Point } from "../api/types";
import { type How, useDesk } from "../desk/useDesk";
import { focusBox } from "../entry/boxes";
import { EntryBox, FaultPlace, shownEntry } from "../entry/EntryBox";
import { NotesAt } from "../notes/NotesAt";
import { useWho } from "../signin/SignInGate";
import { MonthsBox, PersonBox } from "../spread/PersonBoxes";
import { focusAtOnce } from "../ui/focus";
import { count, exact, today } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Button, Diamond } from "../ui/pieces";
import { AnswerNo } from "./AnswerNo";
import { Blanks } from "./Blanks";
import { type By, grouped, Ready, Sorted, Waits } from "./together";
import { deeds, useAsked } from "./useAsked";

export function PointsView() {
  const { opened } = useDesk();
  const { points, blanks } = opened.outcome;
  const open = points.filter((p) => !p.dismissed);
  const blocking = open.filter((p) => p.weight === "blocks" && !p.authority);
  const others = opened.outcome.authorities.slice(1).map(({ name }) => ({
    name,
    points: open.filter((p) => p.weight === "blocks" && p.authority === name),
  }));
  const looking = open.filter((p) => p.weight === "look");
  const aside = points.filter((p) => p.dismissed);
  const [at, setAt] = useState<string>();
  const marked = open.find((p) => p.id === at) ?? open[0];
  const next = useNext(open.map((p) => p.id));
  const shared = { marked: marked?.id, mark: setAt, settled: next };
  const [by, setBy] = useState<By>("weight");
  const walk = (step: number) => () => {
    const to = open[open.findIndex((p) => p.id === marked?.id) + step];
    if (!to) return;
    setAt(to.id);
    document.querySelector(`[data-point="${CSS.escape(to.id)}"]`)?.scrollIntoView({ block: "nearest" });
  };
  useKeys({ "]": walk(1), "[": walk(-1) });
  return (
    <div
      className={`grid h-full max-desk:block max-desk:overflow-auto ${marked ? "grid-cols-[1fr_352px]" : ""}`}
    >
      <section
        aria-label="Open points"
        tabIndex={0}
        className="min-h-0 overflow-auto border-r border-ink px-5 py-4 max-desk:px-2"
      >
        {blocking.length === 0 && <Ready looking={looking.length} blanks={blanks.length} />}
        {open.length > 0 && <Sorted by={by} sort={setBy} />}
        {by !== "weight" &&
          grouped(open, by, opened).map(([title, points]) => (
            <Group key={title} title={title} points={points} {...shared} />
          ))}
        {by === "weight" && (
          <>
            <Group title={holdingUp(blocking.length, "the filing")} points={blocking} {...shared}>
              <AnswerNo />
            </Group>
            {others.map(({ name, points }) => (
              <Group
                key={name}
                title={holdingUp(points.length, `the return of ${name} alone`)}
                points={points}
                {...shared}
              />
            ))}
            <Group title={`${looking.length} worth a look`} points={looking} {...shared} />
          </>
        )}
        <Group title={`${aside.length} put aside`} points={aside} {...shared} />
        <Blanks blanks={blanks} open={points.length === 0} />
      </section>
      {marked && (
        <aside aria-label="About the point" tabIndex={0} className="min-h-0 overflow-auto px-4 py-4">
          <About key={marked.id} point={marked} />
        </aside>
      )}
    </div>
  );
}

const holdingUp = (many: number, what: string) =>
  `${count(many, "point")} hold${many === 1 ? "s" : ""} up ${what}`;

/** After a point was settled the next one has the focus. */
function useNext(ids: string[]) {
  const waiting = useRef<string | null>(null);
  useEffect(() => {
    const settled = waiting.current;
    if (settled === null || ids.includes(settled)) return;
    waiting.current = null;
    const boxes = document.querySelectorAll<HTMLElement>("[data-point] [data-box], [data-point] a");
    const box = [...boxes].find(
      (b) => b.closest<HTMLElement>("[data-point]")?.dataset.point === after.current,
    );
    if (box) focusBox(box);
  }, [ids]);
  const after = useRef<string | undefined>(undefined);
  return (id: string) => {
    waiting.current = id;
    after.current = ids[ids.indexOf(id) + 1] ?? ids.find((other) => other !== id);
  };
}

type Shared = { marked: string | undefined; mark: (id: string) => void; settled: (id: string) => void };
type GroupProps = Shared & { title: string; points: Point[]; children?: React.ReactNode };

function Group({ title, points, children, ...shared }: GroupProps) {
  if (points.length === 0) return null;
  return (
    <section className="mb-6">
      <div className="flex items-end justify-between border-b border-ink pb-1">
        <h2>{title}</h2>
        {children}
      </div>
      {points.map((point) => (
        <OnePoint key={point.id} point={point} {...shared} />
      ))}
    </section>
  );
}

function OnePoint({ point, marked, mark, settled }: Shared & { point: Point }) {
  const { edit } = useDesk();
  const [place, setPlace] = useState<HTMLElement | null>(null);
  const here = marked === point.id && !point.dismissed;
  return (
    <div
      data-point={point.id}
      className={`row-line border-l-3 px-2 py-1 ${here ? "border-l-petrol bg-wash" : "border-l-transparent bg-sheet"}`}
      onFocusCapture={() => mark(point.id)}
      onPointerDown={() => mark(point.id)}
    >
      <div className="grid min-h-7 grid-cols-[20px_1fr_auto] items-center gap-x-3 max-md:grid-cols-[20px_1fr]">
        <span role="img" aria-label={point.weight === "blocks" ? "blocks" : "worth a look"}>
          <Diamond solid={point.weight === "blocks"} />
        </span>
        <span>
          <b className="font-semibold">{point.message}</b>{" "}
          {point.dismissed && <span className="text-soft">{point.dismissed}</span>}
        </span>
        <span className="flex items-center justify-end gap-3 max-md:col-span-2">
          <FaultPlace value={place}>
            <Settle point={point} settled={() => settled(point.id)} />
          </FaultPlace>
          {point.dismissed ? (
            <Button tone="quiet" onClick={() => edit([{ do: "dismiss", point: point.id, reason: null }])}>
              Take it up again
            </Button>
          ) : (
            (point.beside && <DoneBeside point={point} />) ||
            (point.weight === "look" && <PutAside point={point} />)
          )}
        </span>
      </div>
      <span ref={setPlace} />
    </div>
  );
}

/** The question that stands at a place, if one does. */
function useQuestion(place: Place): Field | undefined {
  const { pack } = useDesk();
  const among = place.person ? pack.person_questions : place.paper ? [] : pack.household_questions;
  return among.find((q) => q.id === place.field);
}

function weightWords({ weight, authority }: Point) {
  if (weight !== "blocks") return "Worth a look";
  return authority ? `Holds up the return of ${authority} alone` : "Holds up the filing";
}

/** What a point is about: its rule, what to do, and what answering does. */
function About({ point }: { point: Point }) {
  const { opened } = useDesk();
  const question = useQuestion(point.place);
  const asked = useAsked(point.place.person ?? undefined, question !== undefined);
  const told = question ? deeds(question, opened, asked?.get(question.id)) : [];
  return (
    <>
      <span className="text-soft">{weightWords(point)}</span>
      <h2 className="text-[15px]">{point.message}</h2>
      <p className="mt-1">{point.remedy}</p>
      {point.cite && (
        <p className="mt-2">
          <span className="text-soft">Rule </span>
          <b className="font-semibold">{point.cite}</b>
        </p>
      )}
      {question?.help && <p className="mt-2 text-soft">{question.help}</p>}
      {question && (
        <section className="mt-4">
          <h3 className="mb-1">What answering does</h3>
          {told.length > 0 ? (
            <ul>
              {told.map((words) => (
                <li key={words} className="row-line py-0.5">
                  {words}
                </li>
              ))}
            </ul>
          ) : (
            <p className="text-soft">{asked ? "It settles this point." : "Trying the answers…"}</p>
          )}
        </section>
      )}
      <Waits point={point} />
      {point.not_covered && (
        <p className="mt-3 border-l-4 border-ink bg-lilac px-3 py-1.5">
          While it stands, the figures are not a result.
        </p>
      )}
      <NotesAt place={{ point: point.id }} about={point.message.slice(0, 200)} />
    </>
  );
}

/** A question is answered here; anything else is one step away. */
function Settle({ point, settled }: { point: Point; settled: () => void }) {
  const { opened, pack, edit } = useDesk();
  const { household } = opened;
  const { place } = point;
  const person = household.people.find((p) => p.id === place.person);
  const kind = (household.papers ?? []).find((paper) => paper.id === place.paper)?.kind;
  const box = pack.paper_kinds.find((one) => one.id === kind)?.boxes.find((one) => one.id === place.field);
  const question = useQuestion(place);
  if (question) {
    const command = (value: Entry | null): Command =>
      person
        ? { do: "answer_for", person: person.id, field: question.id, value }
        : { do: "answer", field: question.id, value };
    const keep = (value: Entry | null, how: How) => {
      settled();
      return edit([command(value)], how);
    };
    return (
      <span className="w-52">
        <EntryBox
          field={question}
          label={point.message}
          value={person ? person.answers?.[question.id] : household.answers?.[question.id]}
          people={household.people}
          keep={keep}
        />
      </span>
    );
  }
  const { suggested } = point;
  const { decision } = place;
  const own = (["name", "born", "died", "id_number"] as const).find((f) => f === place.field);
  if (person && own) {
    return (
      <span className="w-52">
        <PersonBox of={own} person={person} label={point.message} settled={settled} />
      </span>
    );
  }
  if (person && place.field === "lived_with") {
    return (
      <span className="grid w-52 grid-cols-[1fr_4rem] items-center gap-x-2">
        {household.people
          .filter((p) => p.role === "filer")
          .map((filer) => (
            <Fragment key={filer.id}>
              <span className="text-right text-soft">with {filer.name.split(" ")[0]}</span>
              <MonthsBox person={person} filer={filer} settled={settled} />
            </Fragment>
          ))}
      </span>
    );
  }
  if (decision) {
    return (
      <Button tone="quiet" onClick={() => edit([{ do: "pin", decision, option: null }])}>
        Let it go
      </Button>
    );
  }
  if (place.paper) {
    const { paper, field } = place;
    return (
      <span className="flex gap-3">
        {suggested && field && (
          <Button tone="quiet" onClick={() => edit([{ do: "set_box", paper, field, value: suggested }])}>
            use {box ? shownEntry(box, household.people, suggested) : exact(suggested)}
          </Button>
        )}
        <Link
          to="/h/$id/papers"
          params={{ id: opened.id }}
          search={{ paper, field: field ?? undefined, row: place.row ?? undefined }}
          className="text-petrol underline"
        >
          Go to the box
        </Link>
      </span>
    );
  }
  if (!person) {
    return point.weight === "blocks" && !point.beside ? (
      <Link
        to="/h/$id/ways"
        params={{ id: opened.id }}
        search={{}}
        className="whitespace-nowrap text-petrol underline"
      >
        Go to Ways
      </Link>
    ) : null;
  }
  return (
    <Link
      to="/h/$id/spread"
      params={{ id: opened.id }}
      search={{ person: person.id, field: place.field ?? undefined }}
      className="text-petrol underline"
    >
      Go to {person.name.split(" ")[0]}
    </Link>
  );
}

/** What is no part of the computation: said to be done, by whom and when. */
export function DoneBeside({ point }: { point: Point }) {
  const { edit } = useDesk();
  const { data: who } = useWho();
  const done = () => {
    const reason = `done beside this return · ${who?.name ?? ""}, ${today()}`;
    void edit([{ do: "dismiss", point: point.id, reason, about: point.about }]);
  };
  return (
    <Button tone="quiet" onClick={done}>
      Done beside this return
    </Button>
  );
}

export function PutAside({ point }: { point: Point }) {
  const { edit } = useDesk();
  const [asking, setAsking] = useState(false);
  if (!asking) {
    return (
      <Button tone="quiet" onClick={() => setAsking(true)}>
        Put aside…
      </Button>
    );
  }
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const reason = String(new FormData(event.currentTarget).get("reason"));
        void edit([{ do: "dismiss", point: point.id, reason, about: point.about }]);
      }}
    >
      <input
        name="reason"
        className="box w-44!"
        aria-label="Reason"
        placeholder="Reason"
        required
        maxLength={200}
        ref={focusAtOnce}
      />
      <Button type="submit">Put aside</Button>
    </form>
  );
}
