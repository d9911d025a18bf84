// One box for one field: typed, kept when it is left, with the server's word where it cannot be right.
import { createContext, useContext, useEffect, useId, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { api, ask } from "../api/client";
import type { Entry, Field, Person, Secret } from "../api/types";
import { type Clash, DeskContext, type How, type Refused } from "../desk/useDesk";
import { decimal, exact, typedAmount } from "../ui/format";
import { Button } from "../ui/pieces";
import { focusBox } from "./boxes";
import { ChoiceBox } from "./ChoiceBox";
import { type DayOrder, shownDay, typedDay } from "./dates";
import { Misread, TextBox } from "./TextBox";
import { YesNoBox } from "./YesNoBox";

export type Keep = (value: Entry | null, how: How) => Promise<Refused>;

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
  /** The id of a list whose entries are offered, and who is told what is typed. */
  list?: string;
  typing?: (text: string) => void;
  /** In which order days are written, and of which year, where no household is open. */
  days?: { order: DayOrder; year: number };
};

/** Where faults are told instead of beside their box: the line below a row of a table. */
export const FaultPlace = createContext<HTMLElement | null>(null);

/** The box in a cell of its own, and below it over the whole width of the grid what is wrong. */
export function EntryBox(props: Props) {
  const [refused, setRefused] = useState<Refused>(null);
  const [revealed, setRevealed] = useState<string | null>(null);
  const desk = useContext(DeskContext);
  const faultId = useId();
  const cell = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const box = props.focus && cell.current?.querySelector<HTMLElement>("[data-box]");
    if (box) focusBox(box);
  }, [props.focus]);
  const onItsWay = useRef(0);
  const keep = async (value: Entry | null, how: How) => {
    // The same again is no edit, unless another one is on its way or a part of the typing was kept meanwhile.
    const settled = onItsWay.current === 0 && how.typing?.made === undefined;
    if (settled && isSame(props.field, value, props.value ?? null)) {
      setRefused(null);
      return null;
    }
    setRevealed(null);
    onItsWay.current += 1;
    const wrong = await props.keep(value, { ...how, secret: props.field.secret });
    onItsWay.current -= 1;
    setRefused(wrong);
    return wrong;
  };
  const fault = typeof refused === "string" ? refused : null;
  // The choice is open as long as the desk says so; then what was typed gives way to what stands.
  const clashing = refused !== null && typeof refused !== "string" ? refused : null;
  const clash = clashing && desk?.clash === clashing ? clashing : null;
  const [choices, setChoices] = useState(0);
  const settled = clashing !== null && clash === null;
  useEffect(() => {
    if (!settled) return;
    setRefused(null);
    setChoices((n) => n + 1);
  }, [settled]);
  const shared = {
    "aria-label": props.label,
    "aria-invalid": fault || clash ? true : undefined,
    "aria-describedby": fault || clash ? faultId : props.describedBy,
    "data-box": props.field.id,
    list: props.list,
    "data-at": props.secretAt ? JSON.stringify(props.secretAt) : undefined,
  };
  return (
    <>
      <span ref={cell} className="flex items-center">
        <span className="min-w-0 flex-1">
          <Control
            key={choices}
            {...props}
            value={revealed ?? props.value}
            keep={keep}
            refuse={setRefused}
            shared={shared}
          />
        </span>
        {props.field.secret && props.secretAt && props.value !== undefined && !revealed && (
          <Reveal at={props.secretAt} label={props.label} show={setRevealed} />
        )}
      </span>
      {fault && <Fault id={faultId}>{fault}</Fault>}
      {clash && (
        <Fault id={faultId}>
          <Choose {...props} clash={clash} />
        </Fault>
      )}
    </>
  );
}

/** Whether two entries say the same: of amounts the amount, however it was written. */
export function isSame(field: Field, one: Entry | null, other: Entry | null): boolean {
  if (field.kind.type !== "amount" || one === null || other === null) return one === other;
  return Number(one) === Number(other);
}

/** What is wrong: one line over the whole width, below the row. */
function Fault({ id, children }: { id: string; children: React.ReactNode }) {
  const place = useContext(FaultPlace);
  const line = (
    <span
      id={id}
      role="alert"
      className="col-span-full my-0.5 block border-l-4 border-ochre bg-sand px-2 py-1 text-left"
    >
      {children}
    </span>
  );
  return place ? createPortal(line, place) : line;
}

/** Two people filled the same box: which of the two stands. */
function Choose({ field, people, clash }: Props & { clash: Clash }) {
  const desk = useContext(DeskContext);
  const { theirs, mine, by } = clash.conflicts[0] ?? {};
  const told = (value: unknown) =>
    value === null || value === undefined ? "empty" : shownEntry(field, people, value as Entry);
  return (
    <>
      {field.label || "This"} is <b>{told(theirs)}</b> by {by ?? "someone else"}; you typed{" "}
      <b>{told(mine)}</b>:{" "}
      <Button tone="quiet" onClick={() => desk?.clearClash()}>
        keep theirs
      </Button>{" "}
      <Button tone="quiet" onClick={() => void clash.again()}>
        set mine
      </Button>
    </>
  );
}

/** An entry as people read it. */
export function shownEntry(field: Field, people: Person[], value: Entry): string {
  const { kind } = field;
  switch (kind.type) {
    case "amount":
      return exact(String(value));
    case "number":
      return decimal(String(value));
    case "date":
      return shownDay(String(value));
    case "yes_no":
      return value ? "Yes" : "No";
    case "choice":
      return kind.options.find((o) => o.id === value)?.label ?? String(value);
    case "person":
      return people.find((p) => p.id === value)?.name ?? String(value);
    default:
      return String(value);
  }
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

type ControlProps = Omit<Props, "secretAt" | "focus"> & {
  refuse: (refused: Refused) => void;
  shared: Record<string, string | boolean | undefined>;
};

function Control(props: ControlProps) {
  const { field, value, people, keep, refuse, shared } = props;
  const now = (entry: Entry | null) => void keep(entry, {});
  switch (field.kind.type) {
    case "yes_no":
      return <YesNoBox {...{ value, keep: now, shared }} />;
    case "choice":
      return (
        <ChoiceBox
          options={field.kind.options}
          value={String(value ?? "")}
          {...{ keep: now, refuse, shared }}
        />
      );
    case "person": {
      const options = people.map((p) => ({ id: p.id, label: p.name }));
      return <ChoiceBox options={options} value={String(value ?? "")} {...{ keep: now, refuse, shared }} />;
    }
    default:
      return <TypedBox {...props} />;
  }
}

function TypedBox({ field, value, people, offered, keep, refuse, shared, days, typing }: ControlProps) {
  const desk = useContext(DeskContext);
  const shown = value === undefined ? "" : shownEntry(field, people, value);
  const order = desk?.pack.days ?? days?.order ?? "day_month_year";
  const year = desk?.opened.household.year ?? days?.year ?? new Date().getFullYear();
  const read = (text: string): Entry | Misread => {
    const plain = text.trim();
    switch (field.kind.type) {
      case "amount":
        return typedAmount(plain);
      case "number":
        return typedAmount(plain);
      case "count":
        return /^\d+$/.test(plain) ? Number(plain) : plain;
      case "date": {
        const day = typedDay(plain, order, year);
        return "iso" in day ? day.iso : new Misread(day.fault);
      }
      default:
        return shaped(plain, field.shape);
    }
  };
  const { type } = field.kind;
  const inputMode = { amount: "decimal", number: "decimal", count: "numeric" } as const;
  const numeric = type in inputMode;
  return (
    <TextBox
      {...{ shown, read, keep, refuse, shared, offered, typing }}
      offeredText={offered && field.kind.type !== "text" ? exact(offered) : offered}
      className={numeric ? "box amount" : "box"}
      inputMode={inputMode[type as keyof typeof inputMode]}
    />
  );
}

/** A number in its printed shape, where it has as many digits as that; other text stays. */
function shaped(text: string, shape: string): string {
  const digits = text.replaceAll(/[\s.-]/g, "");
  if (!shape || !/^\d+$/.test(digits) || digits.length !== shape.replaceAll(/[^0]/g, "").length) return text;
  let at = 0;
  return shape.replaceAll("0", () => digits[at++] ?? "");
}
