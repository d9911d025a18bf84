// Before something is removed: what goes with it.
import { Button } from "./pieces";
import { Sheet } from "./Sheet";

type Props = { what: string; goes: string[]; remove: () => void; leave: () => void };

export function Removing({ what, goes, remove, leave }: Props) {
  const act = () => {
    leave();
    remove();
  };
  return (
    <Sheet title={`Remove ${what}?`} about="Undo brings all of it back." onClose={leave}>
      <p>With it go:</p>
      <ul className="my-2 ml-5 list-disc">
        {goes.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <div className="mt-3 flex gap-2">
        <Button tone="main" onClick={act}>
          Remove
        </Button>
        <Button onClick={leave}>Leave it</Button>
      </div>
    </Sheet>
  );
}
