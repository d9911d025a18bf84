// Open points: what blocks and what deserves a look, each answered where it stands or one step away.
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { Command, Entry, Field, Point } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox } from "../entry/EntryBox";
import { useWho } from "../signin/SignInGate";
import { focusAtOnce } from "../ui/focus";
import { count, exact, today } from "../ui/format";
import { Blank, Button, Diamond } from "../ui/pieces";
import { AnswerNo } from "./AnswerNo";

export function PointsView() {
  const { opened } = useDesk();
  const { points } = opened.outcome;
  const open = points.filter((p) => !p.dismissed);
  const blocking = open.filter((p) => p.weight === "blocks");
  const looking = open.filter((p) => p.weight === "look");
  const aside = points.filter((p) => p.dismissed);
  if (points.length === 0)
    return <Blank title="Nothing is open">Every question is answered and no check found anything.</Blank>;
  return (
    <section aria-label="Open points" tabIndex={0} className="h-full overflow-auto px-7 py-4">
      <Group
        title={`${count(blocking.length, "point")} hold${blocking.length === 1 ? "s" : ""} up the filing`}
        points={blocking}
      >
        <AnswerNo />
      </Group>
      <Group title={`${looking.length} worth a look`} points={looking} />
      <Group title={`${aside.length} put aside`} points={aside} />
    </section>
  );
}

type GroupProps = { title: string; points: Point[]; children?: React.ReactNode };

function Group({ title, points, children }: GroupProps) {
  if (points.length === 0) return null;
  return (
    <section className="mb-6 max-w-7xl">
      <div className="flex items-end justify-between border-b border-ink pb-1">
        <h2>{title}</h2>
        {children}
      </div>
      {points.map((point) => (
        <OnePoint key={point.id} point={point} />
      ))}
    </section>
  );
}

function OnePoint({ point }: { point: Point }) {
  const { edit } = useDesk();
  return (
    <div className="row-line grid min-h-9 grid-cols-[20px_1fr_auto_auto] items-center gap-x-3 bg-sheet px-2 py-1 lg:grid-cols-[20px_1fr_12rem_13rem_auto]">
      <span role="img" aria-label={point.weight === "blocks" ? "blocks" : "worth a look"}>
        <Diamond solid={point.weight === "blocks"} />
      </span>
      <span>
        <b className="font-semibold">{point.message}</b>{" "}
        <span className="text-soft">{point.dismissed ?? point.remedy}</span>
      </span>
      <span className="hidden text-[12px] text-soft lg:block">{point.cite}</span>
      <span className="justify-self-end">
        <Settle point={point} />
      </span>
      {point.dismissed ? (
        <Button tone="quiet" onClick={() => edit([{ do: "dismiss", point: point.id, reason: null }])}>
          Take it up again
        </Button>
      ) : (
        (point.beside && <DoneBeside point={point} />) ||
        (point.weight === "look" && <PutAside point={point} />)
      )}
    </div>
  );
}

/** A question is answered here; anything else is one step away. */
function Settle({ point }: { point: Point }) {
  const { opened, pack, edit } = useDesk();
  const { household } = opened;
  const { place } = point;
  const person = household.people.find((p) => p.id === place.person);
  const question: Field | undefined = person
    ? pack.person_questions.find((q) => q.id === place.field)
    : place.paper
      ? undefined
      : pack.household_questions.find((q) => q.id === place.field);
  if (question) {
    const command = (value: Entry | null): Command =>
      person
        ? { do: "answer_for", person: person.id, field: question.id, value }
        : { do: "answer", field: question.id, value };
    return (
      <span className="w-52">
        <EntryBox
          field={question}
          label={point.message}
          value={person ? person.answers?.[question.id] : household.answers?.[question.id]}
          people={household.people}
          keep={(value, how) => edit([command(value)], how)}
        />
      </span>
    );
  }
  const { suggested } = point;
  const { decision } = place;
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
            use {exact(suggested)}
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
  if (!person) return <span />;
  return (
    <Link
      to="/h/$id/spread"
      params={{ id: opened.id }}
      search={{ person: person.id }}
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
