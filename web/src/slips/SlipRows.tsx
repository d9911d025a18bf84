// The boxes that were read of a slip: Enter confirms one, typing corrects it.
import type { Entry, Field, Paper, PaperKind, SlipLook, SlipRead } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { EntryBox, isSame, shownEntry } from "../entry/EntryBox";
import { field } from "../entry/field";
import { toldEntry, toldField } from "../papers/coded";
import type { Confirmed } from "./SlipIn";

type Props = {
  kind: PaperKind;
  paper: Paper | undefined;
  proposal: SlipLook["proposal"];
  title: string;
  setTitle: (title: string) => void;
  boxes: Confirmed;
  setBoxes: React.Dispatch<React.SetStateAction<Confirmed>>;
  see: (read: SlipRead | undefined) => void;
};

export function SlipRows({ kind, paper, proposal, title, setTitle, boxes, setBoxes, see }: Props) {
  const { opened } = useDesk();
  const set = (id: string, change: Partial<Confirmed[string]>) =>
    setBoxes((now) => ({ ...now, [id]: { value: null, seen: false, ...now[id], ...change } }));
  const named = field("title", kind.title, { type: "text", max: 120 });
  return (
    <div>
      <div
        className="row-line grid grid-cols-[6rem_1fr] items-center gap-2 py-1"
        onFocusCapture={() => see(proposal.title ?? undefined)}
      >
        <span className="text-soft">{kind.title}</span>
        <EntryBox
          field={named}
          label={kind.title}
          value={title || undefined}
          people={[]}
          keep={async (value) => {
            setTitle(String(value ?? ""));
            return null;
          }}
        />
      </div>
      {proposal.boxes.length > 0 && (
        <h3 className="mt-2 border-b border-ink pb-1">Its boxes, as they were read</h3>
      )}
      {proposal.boxes.map((box, n) => {
        const of = toldField(kind, box.field);
        if (!of) return null;
        return (
          <BoxRow
            key={box.field}
            field={of}
            read={box.read}
            fault={box.fault ?? null}
            keyed={toldEntry(kind, paper, box.field)}
            now={boxes[box.field] ?? { value: null, seen: false }}
            set={(change) => set(box.field, change)}
            see={see}
            focus={n === 0}
            people={opened.household.people}
          />
        );
      })}
    </div>
  );
}

type RowProps = {
  field: Field;
  read: SlipRead;
  fault: string | null;
  keyed: Entry | undefined;
  now: Confirmed[string];
  set: (change: Partial<Confirmed[string]>) => void;
  see: (read: SlipRead | undefined) => void;
  focus: boolean;
  people: Parameters<typeof shownEntry>[1];
};

function BoxRow({ field, read, fault, keyed, now, set, see, focus, people }: RowProps) {
  const label = `${field.number} ${field.label}`.trim();
  const confirm = (event: React.KeyboardEvent) => {
    if (event.key === "Enter" && (event.target as HTMLElement).dataset.box) set({ seen: true });
  };
  const differs = keyed !== undefined && now.value !== null && !isSame(field, keyed, now.value);
  return (
    <div
      className={`row-line grid grid-cols-[30px_1fr_9rem_20px] items-center gap-1 py-1 ${now.seen ? "bg-wash" : ""}`}
      onFocusCapture={() => see(read)}
      onKeyDownCapture={confirm}
    >
      <b className="text-soft">{field.number}</b>
      <span className="pr-1 leading-tight">
        {field.label}
        {differs && (
          <span className="block text-[12px] text-ochre">keyed: {shownEntry(field, people, keyed)}</span>
        )}
        {now.value === null && (
          <span className="block text-[12px] text-ochre">
            {fault ? `It says “${read.words}”: ${fault}.` : "left empty"}
          </span>
        )}
      </span>
      <EntryBox
        field={field}
        label={label}
        value={now.value ?? undefined}
        people={people}
        focus={focus}
        keep={async (value) => {
          set({ value, seen: true });
          return null;
        }}
      />
      <input
        type="checkbox"
        aria-label={`${label} is confirmed`}
        checked={now.seen}
        onChange={(event) => set({ seen: event.target.checked })}
      />
    </div>
  );
}
