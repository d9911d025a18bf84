// At what the choices of this way turn.
import { useDesk } from "../desk/useDesk";
import { capital } from "../ui/format";

export function Turns() {
  const { opened } = useDesk();
  const turns = opened.outcome.decisions.flatMap((d) =>
    d.arises && d.break_even ? [capital(d.break_even)] : [],
  );
  if (turns.length === 0) return null;
  return (
    <section className="border-t border-rule pt-2">
      <h3 className="mb-1">What would turn it</h3>
      {turns.map((words) => (
        <p key={words} className="py-0.5">
          {words}
        </p>
      ))}
    </section>
  );
}
