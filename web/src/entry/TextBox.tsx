// A box for what is typed: amounts, numbers, days, words. It is kept when the box is left, at Enter, and after a rest.
import { useCallback, useContext, useEffect, useRef, useState } from "react";
import type { Entry } from "../api/types";
import { DeskContext, type How, type Refused, type Typing } from "../desk/useDesk";
import { toNextBox } from "./boxes";
import { startTyping, stopTyping } from "./typing";

/** Text that cannot be what the box asks for. */
export class Misread {
  constructor(readonly fault: string) {}
}

type Props = {
  shown: string;
  read: (text: string) => Entry | Misread;
  keep: (value: Entry | null, how: How) => Promise<Refused>;
  /** What is wrong with the text, once the box is left. */
  refuse: (refused: Refused) => void;
  /** Enter in the empty box takes this over. */
  offered?: string;
  offeredText?: string;
  /** Told what is typed, as it is typed. */
  typing?: (text: string) => void;
  className: string;
  inputMode?: "decimal" | "numeric";
  shared: Record<string, string | boolean | undefined>;
};

/** Typing is kept after so many milliseconds of rest. */
const REST = 800;

export function TextBox(props: Props) {
  const { shown, shared, offered, offeredText, className, inputMode } = props;
  const { typed, type, keep, takeBack, input } = useTyped(props);
  const text = typed ?? shown;
  const onKeyDown = (event: React.KeyboardEvent<HTMLInputElement>) => {
    // The first Escape takes the typing back, the next one leaves the box.
    if (event.key === "Escape" && typed !== null) {
      event.stopPropagation();
      takeBack();
    }
    if (event.key !== "Enter") return;
    event.preventDefault();
    if (text === "" && offered) props.keep(offered, {});
    else if (!keep()) return;
    toNextBox(event.currentTarget);
  };
  return (
    <input
      {...shared}
      ref={input}
      className={className}
      inputMode={inputMode}
      value={text}
      placeholder={offeredText}
      data-offered={offered && text === "" ? true : undefined}
      onChange={(e) => {
        type(e.target.value);
        props.typing?.(e.target.value);
      }}
      onFocus={(e) => e.target.select()}
      onBlur={() => void keep()}
      onKeyDown={onKeyDown}
      autoComplete="off"
    />
  );
}

/** What was typed and is not yet what stands there, and keeping it: once an edit, however it came about. */
function useTyped(props: Props) {
  const desk = useContext(DeskContext);
  const [typed, setTyped] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const latest = useRef({ props, desk, typed });
  latest.current = { props, desk, typed };
  // What of the typing was given to be kept and what is kept, whether any of it was given, and what stood before.
  type Edit = Typing & { given?: string; kept?: string; begun?: boolean; before: string; rest?: number };
  const edit = useRef<Edit>({ before: "" });

  const give = useCallback(async (loud: boolean) => {
    const { props, typed } = latest.current;
    const now = edit.current;
    clearTimeout(now.rest);
    if (typed === null || typed === now.given) return;
    const value = typed.trim() === "" ? null : props.read(typed);
    if (value instanceof Misread) return loud ? props.refuse(value.fault) : undefined;
    now.given = typed;
    now.begun = true;
    const refused = await props.keep(value, { typing: now });
    if (latest.current.typed !== typed) return;
    const left = document.activeElement !== input.current;
    if (refused === null) {
      now.kept = typed;
      stopTyping(flush.current);
      props.refuse(null);
      // Enter ends the edit also where the box keeps the focus.
      if (left || loud) setTyped(null);
    } else if (loud || left) props.refuse(refused);
    else now.given = undefined;
  }, []);
  const flush = useRef(() => void give(false));

  const type = (text: string) => {
    const now = edit.current;
    if (typed === null) edit.current = { base: desk?.opened.revision, before: props.shown };
    else clearTimeout(now.rest);
    latest.current.typed = text;
    setTyped(text);
    startTyping(flush.current);
    edit.current.given = undefined;
    edit.current.kept = undefined;
    edit.current.rest = window.setTimeout(flush.current, REST);
  };
  /** The box is left: what is kept already is shown as it stands there. Whether the text can be read. */
  const keep = () => {
    const { typed } = latest.current;
    if (typed !== null && typed === edit.current.kept) {
      stopTyping(flush.current);
      setTyped((now) => (now === typed ? null : now));
    }
    const wrong = typed !== null && typed.trim() !== "" && props.read(typed) instanceof Misread;
    void give(true);
    return !wrong;
  };
  const takeBack = () => {
    const now = edit.current;
    clearTimeout(now.rest);
    stopTyping(flush.current);
    setTyped(null);
    props.refuse(null);
    if (!now.begun) return;
    const before = now.before === "" ? null : props.read(now.before);
    if (!(before instanceof Misread)) void props.keep(before, { typing: now });
  };
  useEffect(() => {
    const last = flush.current;
    return () => {
      last();
      stopTyping(last);
    };
  }, []);
  return { typed, type, keep, takeBack, input };
}
