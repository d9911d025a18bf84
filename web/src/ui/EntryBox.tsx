// One box for one field: typed, kept when it is left, with the server's word where it cannot be right.
import { useContext, useEffect, useId, useRef, useState } from "react";
import { api, ask } from "../api/client";
import type { Entry, Field, Person, Secret } from "../api/types";
import { type Clash, DeskContext, type Refused } from "../desk/useDesk";
import { exact, typedAmount } from "./format";
import { Button } from "./pieces";

export type Keep = (value: Entry | null) => Promise<Refused>;

type Props = {
  field: Field;
  label: string;
  value: Entry | undefined;
  people: Person[];
  offered?: string;
  keep: Keep;
  focus?: boolean;
  describedBy?: string;
  /** Where the secret stands, for a field that is one. */
  secretAt?: Secret;
};

export function EntryBox(props: Props) {
  const [refused, setRefused] = useState<Refused>(null);
  const [shown, setShown] = useState<string | null>(null);
  const desk = useContext(DeskContext);
  const faultId = useId();
  const keep = async (value: Entry | null) => {
    if (value === (props.value ?? null)) return setRefused(null);
    setShown(null);
    setRefused(await props.keep(value));
  };
  const fault = typeof refused === "string" ? refused : null;
  // The choice is open as long as the desk says so.
  const clash = refused && typeof refused !== "string" && desk?.clash === refused ? refused : null;
  const shared = {
    "aria-label": props.label,
    "aria-invalid": fault || clash ? true : undefined,
    "aria-describedby": fault || clash ? faultId : props.describedBy,
    "data-box": props.field.id,
  };
  return (
    <>
      <Control {...props} value={shown ?? props.value} keep={keep} shared={shared} />
      {props.field.secret && props.secretAt && props.value !== undefined && !shown && (
        <Reveal at={props.secretAt} label={props.label} show={setShown} />
      )}
      {fault && (
        <span
          id={faultId}
          role="alert"
          className="col-span-full block py-0.5 text-left text-[12px] text-ochre"
        >
          {fault}
        </span>
      )}
      {clash && <Choose id={faultId} field={props.field} clash={clash} />}
    </>
  );
}

/** Two people filled the same box: which of the two stands. */
function Choose({ id, field, clash }: { id: string; field: Field; clash: Clash }) {
  const desk = useContext(DeskContext);
  const { theirs, mine } = clash.conflicts[0] ?? {};
  const told = (value: unknown) =>
    value === null || value === undefined
      ? "nothing"
      : field.kind.type === "amount"
        ? exact(String(value))
        : String(value);
  return (
    <span
      id={id}
      role="alert"
      className="col-span-full my-1 block border-l-4 border-ochre bg-sand px-2 py-1 text-left text-[12px]"
    >
      Someone made this <b>{told(theirs)}</b> meanwhile; you typed <b>{told(mine)}</b>.{" "}
      <Button tone="quiet" onClick={() => desk?.clearClash()}>
        Keep {told(theirs)}
      </Button>{" "}
      <Button tone="quiet" onClick={() => void clash.again()}>
        Make it {told(mine)}
      </Button>
    </span>
  );
}

/** Shows a secret in full; the server notes that it did. */
function Reveal({ at, label, show }: { at: Secret; label: string; show: (text: string | null) => void }) {
  const desk = useContext(DeskContext);
  if (!desk) return null;
  const reveal = async () => {
    const params = { path: { id: desk.opened.id } };
    const answer = await ask(api.POST("/api/households/{id}/reveal", { params, body: at }));
    show(answer.text ?? null);
  };
  return (
    <Button tone="quiet" className="min-h-[24px]" onClick={reveal} aria-label={`Show ${label}`}>
      Show
    </Button>
  );
}

type ControlProps = Omit<Props, "keep" | "secretAt"> & {
  keep: (value: Entry | null) => Promise<void>;
  shared: Record<string, string | boolean | undefined>;
};

function Control({ field, value, people, offered, keep, focus, shared }: ControlProps) {
  const kind = field.kind;
  switch (kind.type) {
    case "yes_no":
      return (
        <select
          {...shared}
          className="box"
          value={value === undefined ? "" : String(value)}
          onChange={(e) => keep(e.target.value === "" ? null : e.target.value === "true")}
        >
          <option value=""> </option>
          <option value="true">Yes</option>
          <option value="false">No</option>
        </select>
      );
    case "choice":
      return (
        <select
          {...shared}
          className="box"
          value={String(value ?? "")}
          onChange={(e) => keep(e.target.value || null)}
        >
          <option value=""> </option>
          {kind.options.map((o) => (
            <option key={o.id} value={o.id}>
              {o.label}
            </option>
          ))}
        </select>
      );
    case "person":
      return (
        <select
          {...shared}
          className="box"
          value={String(value ?? "")}
          onChange={(e) => keep(e.target.value || null)}
        >
          <option value=""> </option>
          {people.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </select>
      );
    case "amount":
      return (
        <TextBox
          shown={value === undefined ? "" : exact(String(value))}
          read={(text) => typedAmount(text)}
          offered={offered}
          className="box amount"
          inputMode="decimal"
          {...{ keep, focus, shared }}
        />
      );
    case "count":
      return (
        <TextBox
          shown={value === undefined ? "" : String(value)}
          read={(text) => (/^\d+$/.test(text.trim()) ? Number(text) : text)}
          className="box amount"
          inputMode="numeric"
          {...{ keep, focus, shared }}
        />
      );
    case "date":
      return (
        <TextBox
          shown={String(value ?? "")}
          read={(text) => text}
          type="date"
          className="box"
          {...{ keep, focus, shared }}
        />
      );
    case "text":
      return (
        <TextBox
          shown={String(value ?? "")}
          read={(text) => text.trim()}
          className="box"
          {...{ keep, focus, shared }}
        />
      );
  }
}

type TextProps = Pick<ControlProps, "keep" | "focus" | "shared" | "offered"> & {
  shown: string;
  read: (text: string) => Entry;
  className: string;
  type?: string;
  inputMode?: "decimal" | "numeric";
};

/** Text is kept when the box is left or Enter is pressed; Escape takes the typing back. */
function TextBox({ shown, read, keep, focus, shared, offered, ...rest }: TextProps) {
  const [text, setText] = useState(shown);
  const input = useRef<HTMLInputElement>(null);
  // What was given to be kept: Enter leaves the box, and leaving keeps; it is kept once.
  const given = useRef<string | null>(null);
  useEffect(() => {
    given.current = null;
    setText(shown);
  }, [shown]);
  useEffect(() => {
    if (focus) input.current?.focus();
  }, [focus]);
  const leave = () => {
    if (text === shown || text === given.current) return;
    given.current = text;
    keep(text.trim() === "" ? null : read(text));
  };
  const onKeyDown = (event: React.KeyboardEvent<HTMLInputElement>) => {
    // The first Escape takes the typing back, the next one leaves the box.
    if (event.key === "Escape" && text !== shown) {
      event.stopPropagation();
      setText(shown);
    }
    if (event.key !== "Enter") return;
    if (text === "" && offered) keep(offered);
    else leave();
    toNextBox(event.currentTarget);
  };
  return (
    <input
      {...shared}
      {...rest}
      ref={input}
      value={text}
      placeholder={offered ? exact(offered) : undefined}
      data-offered={offered && text === "" ? true : undefined}
      onChange={(e) => {
        given.current = null;
        setText(e.target.value);
      }}
      onFocus={(e) => e.target.select()}
      onBlur={leave}
      onKeyDown={onKeyDown}
      autoComplete="off"
    />
  );
}

/** Enter goes on to the next box, as Tab does. */
function toNextBox(from: HTMLElement) {
  const boxes = [...document.querySelectorAll<HTMLElement>("[data-box]")];
  boxes[boxes.indexOf(from) + 1]?.focus();
}
