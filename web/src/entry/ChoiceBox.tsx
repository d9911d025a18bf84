// One of a list: typing searches by code and name, Enter keeps what is marked and goes on, Alt+↓ shows the list.
import { Popover } from "radix-ui";
import { useEffect, useId, useRef, useState } from "react";
import type { Refused } from "../desk/useDesk";
import { toNextBox } from "./boxes";

export type Option = { id: string; label: string };

type Props = {
  options: Option[];
  value: string;
  keep: (value: string | null) => void;
  refuse: (refused: Refused) => void;
  shared: Record<string, string | boolean | undefined>;
};

export function ChoiceBox({ options, value, keep, refuse, shared }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const list = useId();
  const input = useRef<HTMLInputElement>(null);
  const chosen = options.find((o) => o.id === value)?.label ?? value;
  const found = typed ? search(options, typed) : options;
  const marked = found[Math.min(at, found.length - 1)];
  const show = () => {
    setOpen(true);
    setAt(Math.max(0, typed ? 0 : options.findIndex((o) => o.id === value)));
  };
  const end = () => {
    setTyped(null);
    setOpen(false);
    refuse(null);
  };
  const choose = (option: Option) => {
    end();
    if (option.id !== value) keep(option.id);
  };
  /** What was typed, where it can mean one thing only. */
  const settle = () => {
    setOpen(false);
    if (typed === null) return;
    if (typed.trim() === "") {
      end();
      if (value !== "") keep(null);
      return;
    }
    const exact = found.find((o) => o.label.toLowerCase() === typed.trim().toLowerCase());
    const only = exact ?? (found.length === 1 ? found[0] : undefined);
    if (only) choose(only);
    else
      refuse(
        `“${typed}” ${found.length === 0 ? "is none of the list" : `may be ${told(found)}`}: choose one.`,
      );
  };
  const onKeyDown = (event: React.KeyboardEvent<HTMLInputElement>) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step) {
      event.preventDefault();
      if (open) setAt(Math.max(0, Math.min(found.length - 1, at + step)));
      else if (step > 0) show();
    }
    if (event.key === "Enter") {
      event.preventDefault();
      if (marked && (typed?.trim() || open)) choose(marked);
      else settle();
      if (!typed?.trim() || marked) toNextBox(event.currentTarget);
    }
    if (event.key === "Escape" && (open || typed !== null)) {
      event.stopPropagation();
      end();
    }
    if (event.key === "Delete" && typed === null && value !== "") {
      event.preventDefault();
      keep(null);
    }
  };
  return (
    <Popover.Root open={open && found.length > 0} onOpenChange={setOpen}>
      <Popover.Anchor asChild>
        <span className="relative block" data-box={shared["data-box"]}>
          <input
            {...shared}
            data-box={undefined}
            ref={input}
            role="combobox"
            aria-expanded={open}
            aria-controls={open ? list : undefined}
            aria-activedescendant={open && marked ? `${list}-${marked.id}` : undefined}
            aria-autocomplete="list"
            className="box pr-6 text-ellipsis"
            value={typed ?? chosen}
            title={chosen}
            onChange={(e) => {
              setTyped(e.target.value);
              setAt(0);
              setOpen(true);
            }}
            onClick={() => (open ? setOpen(false) : show())}
            onFocus={(e) => e.target.select()}
            onBlur={settle}
            onKeyDown={onKeyDown}
            autoComplete="off"
          />
          <svg
            viewBox="0 0 10 6"
            className="pointer-events-none absolute top-2.5 right-2 w-[9px]"
            aria-hidden="true"
          >
            <path d="M1 1l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.4" />
          </svg>
        </span>
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          id={list}
          role="listbox"
          aria-label="Choices"
          align="start"
          sideOffset={1}
          collisionPadding={8}
          className="z-60 max-h-72 min-w-(--radix-popover-trigger-width) max-w-110 overflow-auto border border-ink bg-sheet py-1"
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          // The box itself ends what was typed in it.
          onEscapeKeyDown={(e) => e.preventDefault()}
          onInteractOutside={(e) => input.current?.contains(e.target as Node) && e.preventDefault()}
        >
          {found.map((option) => (
            <OneOption
              key={option.id}
              id={`${list}-${option.id}`}
              option={option}
              marked={option === marked}
              chosen={option.id === value}
              choose={() => choose(option)}
            />
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

type OptionProps = { id: string; option: Option; marked: boolean; chosen: boolean; choose: () => void };

function OneOption({ id, option, marked, chosen, choose }: OptionProps) {
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (marked) line.current?.scrollIntoView({ block: "nearest" });
  }, [marked]);
  return (
    <div
      ref={line}
      id={id}
      role="option"
      tabIndex={-1}
      aria-selected={chosen}
      className={`cursor-pointer px-2 py-1 ${marked ? "bg-wash" : "hover:bg-paper"} ${chosen ? "font-semibold" : ""}`}
      // The box keeps the focus.
      onMouseDown={(e) => e.preventDefault()}
      onClick={choose}
      onKeyDown={(e) => e.key === "Enter" && choose()}
    >
      {option.label}
    </div>
  );
}

/** What begins with the text comes first, then what has a word that does, then what has it anywhere. */
export function search<T extends Option>(options: T[], text: string): T[] {
  const sought = text.trim().toLowerCase();
  const rank = ({ id, label }: Option) => {
    const name = label.toLowerCase();
    if (name.startsWith(sought) || id.toLowerCase() === sought) return 0;
    if (name.split(/[^\p{L}\d]+/u).some((word) => word.startsWith(sought))) return 1;
    return name.includes(sought) ? 2 : 3;
  };
  const ranked = options.map((option) => ({ option, rank: rank(option) })).filter((r) => r.rank < 3);
  return ranked.sort((a, b) => a.rank - b.rank).map((r) => r.option);
}

function told(options: Option[]) {
  const names = options.slice(0, 3).map((o) => o.label);
  return names.join(" or ") + (options.length > 3 ? " or others" : "");
}
