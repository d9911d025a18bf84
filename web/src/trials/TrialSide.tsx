// Beside the Spread of a trial: what it changes, what that does to the best way, and quick moves.
import { useDesk } from "../desk/useDesk";
import { PanelHead } from "../spread/SpreadView";
import { difference, isZero } from "../ui/format";
import { Button, Key } from "../ui/pieces";
import { Turns } from "../ways/Turns";
import { TrialCurve } from "./TrialCurve";
import { useTrial, useTrying } from "./useTrials";

export function TrialSide() {
  const { opened } = useDesk();
  const trial = useTrial().data;
  const { quick, refused } = useTrying();
  if (!trial) return null;
  const children = opened.household.people.filter((p) => p.role === "dependent" && p.born);
  const turned = trial.was.way !== trial.now.way;
  return (
    <>
      <PanelHead over="Beside the return" title="What the trial changes">
        {trial.changes.length === 0 && (
          <p className="mt-1 text-soft">
            Nothing yet. Change anything here: papers, people, questions, decisions. Mark a figure for quick
            moves on its paper, or <Key>P</Key> to key.
          </p>
        )}
      </PanelHead>
      <ul className="px-4">
        {trial.changes.map((words) => (
          <li key={words} className="row-line py-1">
            {words}
          </li>
        ))}
      </ul>
      <section className="space-y-1 px-4 py-3">
        {trial.changes.length > 0 && (
          <p>
            <b>
              {isZero(trial.more)
                ? "The tax stays as it is."
                : `${difference(trial.more)} tax against the return.`}
            </b>
          </p>
        )}
        {turned && (
          <p>
            <b>The best way turns</b> from {trial.was.way} to {trial.now.way}.
          </p>
        )}
        <Turns />
        {trial.along && <TrialCurve along={trial.along} />}
      </section>
      <section className="border-t border-rule px-4 py-3">
        <h3 className="mb-2">Quick moves</h3>
        <div className="flex flex-wrap gap-2">
          <Button onClick={() => void quick({ move: "child" }, "one more child")}>one more child</Button>
          {children.map((child) => (
            <Button
              key={child.id}
              onClick={() => void quick({ move: "earlier", person: child.id }, "born a month earlier")}
            >
              {child.name.split(" ")[0]} born a month earlier
            </Button>
          ))}
        </div>
        <p className="mt-2 text-soft">
          Together or apart, and every other decision, is held at Ways; a figure that is marked offers moves
          on its paper.
        </p>
        {refused && (
          <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-2 py-1">
            {refused}
          </p>
        )}
      </section>
    </>
  );
}
