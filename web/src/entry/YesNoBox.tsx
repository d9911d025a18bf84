// Yes or no, both in sight: Y, N and Delete answer, Enter goes on.
import { ToggleGroup } from "radix-ui";
import type { Entry } from "../api/types";
import { toNextBox } from "./boxes";

type Props = {
  value: Entry | undefined;
  keep: (value: Entry | null) => void;
  shared: Record<string, string | boolean | undefined>;
};

const KEYS: Record<string, boolean | null> = { y: true, n: false, Delete: null, Backspace: null };

export function YesNoBox({ value, keep, shared }: Props) {
  const onKeyDown = (event: React.KeyboardEvent<HTMLElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "Enter") {
      event.preventDefault();
      toNextBox(event.target as HTMLElement);
    }
    const answer = KEYS[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (answer === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    keep(answer);
  };
  return (
    <ToggleGroup.Root
      {...shared}
      type="single"
      className="flex"
      value={value === undefined ? "" : String(value)}
      onValueChange={(answer) => keep(answer === "" ? null : answer === "true")}
      onKeyDown={onKeyDown}
    >
      <Answer value="true">Yes</Answer>
      <Answer value="false">No</Answer>
    </ToggleGroup.Root>
  );
}

function Answer({ value, children }: { value: string; children: string }) {
  return (
    <ToggleGroup.Item value={value} className="choice -ml-px first:ml-0">
      {children}
    </ToggleGroup.Item>
  );
}
