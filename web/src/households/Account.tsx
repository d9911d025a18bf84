// One's own account: the password, the second factor, and where one is signed in.
import { useWho } from "../signin/SignInGate";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { OwnPassword } from "./OwnPassword";
import { OwnSessions } from "./OwnSessions";
import { SecondFactor } from "./SecondFactor";

export function Account({ onClose }: { onClose: () => void }) {
  const who = useWho().data;
  return (
    <Sheet title="Your account" about={who ? `${who.name}, ${who.role}` : ""} onClose={onClose}>
      <OwnPassword />
      <SecondFactor />
      <OwnSessions />
      <div className="mt-5">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Sheet>
  );
}
