// Questions in the order in which they matter: what decides something here and now, with what it decides; then what was
// answered; the others fold.
import { Link } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import type { Answers, Asked, Field, Person } from "../api/types";
import { useAddPaper } from "../desk/useAddPaper";
import { useDesk } from "../desk/useDesk";
import { EntryBox, type Keep } from "../entry/EntryBox";
import { count } from "../ui/format";
import { Line } from "../ui/Line";
import { Waiting } from "../ui/pieces";
import { deeds, useAsked } from "./useAsked";

type Props = {
  questions: Field[];
  answers: Answers | undefined;
  /** Whose questions; the household's where nobody is named. */
  person?: Person;
  /** The question that somebody was sent to. */
  at: string | undefined;
  keep: (field: string) => Keep;
};

export function Questions({ questions, answers = {}, person, at, keep }: Props) {
  const asked = useAsked(person?.id);
  const order = useOrder(questions, answers, asked, at);
  // Boxes that are in sight do not move: they come once their order is known.
  if (asked !== null && !order) return <Waiting what="What each question decides here …" />;
  const { open, folded } = order ?? { open: questions, folded: [] };
  const line = (q: Field) => (
    <Question
      key={q.id}
      question={q}
      value={answers[q.id]}
      person={person}
      asked={asked?.get(q.id)}
      focus={q.id === at}
      keep={keep(q.id)}
    />
  );
  return (
    <>
      {open.map(line)}
      {folded.length > 0 && (
        <details className="row-line py-1.5" open={folded.some((q) => q.id === at) || undefined}>
          <summary className="cursor-pointer text-soft">
            {count(folded.length, "more question")} that decide nothing here, or seldom arise
          </summary>
          {folded.map(line)}
        </details>
      )}
    </>
  );
}

type Placed = Record<string, "first" | "said" | "folded">;

/**
 * The order stands once it is known: a question stays in its place when it is answered, so that nobody loses the box that
 * they are in. What begins to decide something comes out of the fold.
 */
function useOrder(
  questions: Field[],
  answers: Answers,
  asked: Map<string, Asked> | null | undefined,
  at: string | undefined,
): { open: Field[]; folded: Field[] } | null {
  const [placed, setPlaced] = useState<Placed | null>(null);
  useEffect(() => {
    if (!asked) return;
    setPlaced((before) => {
      const place = (q: Field) => {
        const was = before?.[q.id];
        if (was && (was !== "folded" || !asked.get(q.id)?.decides)) return was;
        if (answers[q.id] !== undefined) return "said";
        const here =
          q.id === at || document.activeElement?.closest("[data-box]")?.getAttribute("data-box") === q.id;
        return here || asked.get(q.id)?.decides ? "first" : "folded";
      };
      const now = Object.fromEntries(questions.map((q) => [q.id, place(q)]));
      return before && questions.every((q) => before[q.id] === now[q.id]) ? before : now;
    });
  }, [asked, answers, questions, at]);
  if (!placed) return null;
  const of = (place: string) => questions.filter((q) => (placed[q.id] ?? "first") === place);
  return { open: [...of("first"), ...of("said")], folded: of("folded") };
}

type QuestionProps = {
  question: Field;
  value: Answers[string] | undefined;
  person: Person | undefined;
  asked: Asked | undefined;
  focus: boolean;
  keep: Keep;
};

function Question({ question, value, person, asked, focus, keep }: QuestionProps) {
  const { opened } = useDesk();
  const { people } = opened.household;
  const told = value === undefined ? deeds(question, opened, asked) : [];
  return (
    <Line label={question.label} help={question.help} told={told.slice(0, 3).join(" · ")}>
      <EntryBox
        field={question}
        label={question.label}
        value={value}
        people={people}
        focus={focus}
        keep={keep}
        secretAt={{ person: person?.id, field: question.id }}
      />
      {value === true && <Opens kinds={question.opens} />}
    </Line>
  );
}

/** The papers that a yes calls for: each is added here, or opened where it is there. */
function Opens({ kinds }: { kinds: string[] }) {
  const { opened, pack } = useDesk();
  const { people, papers = [] } = opened.household;
  const add = useAddPaper();
  const filers = people.filter((p) => p.role === "filer").map((p) => p.id);
  const declared = kinds.flatMap((id) => pack.paper_kinds.filter((kind) => kind.id === id));
  return (
    <span className="col-span-2 flex flex-wrap gap-x-3 pb-1 text-[12px]">
      {declared.map((kind) => {
        const there = papers.find((paper) => paper.kind === kind.id);
        return there ? (
          <Link
            key={kind.id}
            className="text-petrol underline underline-offset-2"
            to="/h/$id/papers"
            params={{ id: opened.id }}
            search={{ paper: there.id }}
          >
            Open {kind.id}
          </Link>
        ) : (
          <button
            key={kind.id}
            type="button"
            className="text-petrol underline underline-offset-2"
            onClick={() => void add(kind, kind.shared ? filers : filers.slice(0, 1))}
          >
            Add {kind.id} · {kind.name}
          </button>
        );
      })}
    </span>
  );
}
