// One box for one field: typed, kept when it is left, with the server's word where it cannot be right.
import { useEffect, useId, useRef, useState } from "react";
import type { Entry, Field, Person } from "../api/types";
import { exact, typedAmount } from "./format";

export type Keep = (value: Entry | null) => Promise<string | null>;

type Props = {
  field: Field;
  label: string;
  value: Entry | undefined;
  people: Person[];
  offered?: string;
  keep: Keep;
  focus?: boolean;
  describedBy?: string;
};

export function EntryBox(props: Props) {
  const [fault, setFault] = useState<string | null>(null);
  const faultId = useId();
  const keep = async (value: Entry | null) => {
    if (value === (props.value ?? null)) return setFault(null);
    setFault(await props.keep(value));
  };
  const shared = {
    "aria-label": props.label,
    "aria-invalid": fault ? true : undefined,
    "aria-describedby": fault ? faultId : props.describedBy,
    "data-box": props.field.id,
  };
  return (
    <>
      <Control {...props} keep={keep} shared={shared} />
      {fault && (
        <span
          id={faultId}
          role="alert"
          className="col-span-full block py-0.5 text-left text-[12px] text-ochre"
        >
          {fault}
        </span>
      )}
    </>
  );
}

type ControlProps = Omit<Props, "keep"> & {
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
  useEffect(() => setText(shown), [shown]);
  useEffect(() => {
    if (focus) input.current?.focus();
  }, [focus]);
  const leave = () => {
    if (text !== shown) keep(text.trim() === "" ? null : read(text));
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
      onChange={(e) => setText(e.target.value)}
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
