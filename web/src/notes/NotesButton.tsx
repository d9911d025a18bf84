// How many notes are open, and all of them.
import { useState } from "react";
import { useKeys } from "../ui/keys";
import { Button, Key } from "../ui/pieces";
import { AllNotes } from "./AllNotes";
import { threadsOf, useNotes } from "./useNotes";

/** M goes to the note on what one stands on; where there is no place for one, to all of them. */
export function NotesButton() {
  const [all, setAll] = useState(false);
  const open = threadsOf(useNotes().data ?? []).filter(({ first }) => !first.settled_by).length;
  useKeys({
    m: () => {
      const box = document.querySelector<HTMLElement>("[data-note]");
      if (box) box.focus();
      else setAll(true);
    },
  });
  return (
    <>
      <Button tone="bar" onClick={() => setAll(true)}>
        Notes{open > 0 && ` ${open}`} <Key>M</Key>
      </Button>
      {all && <AllNotes close={() => setAll(false)} />}
    </>
  );
}
