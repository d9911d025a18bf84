// Questions in the order in which they matter: what decides something here and now, with what it decides; then what was
// answered; the others fold.
import type { Answers, Asked, Field, Person } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox, type Keep } from "../entry/EntryBox";
import { count } from "../ui/format";
import { Line } from "../ui/Line";
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
  const blank = (q: Field) => answers[q.id] === undefined;
  const decides = (q: Field) => asked?.get(q.id)?.decides ?? true;
  const first = questions.filter((q) => blank(q) && decides(q));
  const said = questions.filter((q) => !blank(q));
  const rest = questions.filter((q) => blank(q) && !decides(q));
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
      {first.map(line)}
      {said.map(line)}
      {rest.length > 0 && (
        <details className="row-line py-1.5" open={rest.some((q) => q.id === at) || undefined}>
          <summary className="cursor-pointer text-soft">
            {count(rest.length, "question")} that decide nothing here and now
          </summary>
          {rest.map(line)}
        </details>
      )}
    </>
  );
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
  const told = value === undefined ? deeds(question, people, asked) : [];
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
    </Line>
  );
}
