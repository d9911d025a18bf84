// The pack: which parts in which order, made as PDF, and what was made so far.
import { useState } from "react";
import type { PackPart, Packs } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count, moment } from "../ui/format";
import { useKeys } from "../ui/keys";
import { Button, Key } from "../ui/pieces";
import { useMaking } from "./usePacks";

type Props = { packs: Packs; looked: PackPart; look: (part: PackPart) => void };

export function Pack({ packs, looked, look }: Props) {
  const { opened, past } = useDesk();
  const making = useMaking(opened.id, opened.revision);
  const [chosen, setChosen] = useState(() => partsOf(packs.sets[0]?.parts ?? [], packs));
  const title = (part: string) => packs.parts.find((one) => one.part === part)?.title ?? part;
  // Those that are chosen stand first, in their order.
  const order = [...chosen, ...packs.parts.map((one) => one.part).filter((part) => !chosen.includes(part))];
  const move = (part: PackPart, by: number) => {
    const to = chosen.indexOf(part) + by;
    if (to < 0 || to >= chosen.length) return;
    const rest = chosen.filter((one) => one !== part);
    setChosen([...rest.slice(0, to), part, ...rest.slice(to)]);
  };
  const toggle = (part: PackPart) =>
    setChosen(chosen.includes(part) ? chosen.filter((one) => one !== part) : [...chosen, part]);
  const make = () => chosen.length > 0 && !past && making.make.mutate(chosen);
  useKeys({ d: make });
  return (
    <>
      <div className="flex items-baseline justify-end">
        <Sets packs={packs} chosen={chosen} choose={setChosen} making={making} />
      </div>
      <ul className="mt-2">
        {order.map((part) => (
          <li
            key={part}
            className={`row-line flex h-8 items-center gap-3 px-2.5 ${looked === part ? "bg-wash" : "bg-sheet"}`}
          >
            <input
              type="checkbox"
              aria-label={title(part)}
              checked={chosen.includes(part)}
              onChange={() => toggle(part)}
            />
            <button
              type="button"
              className="flex-1 text-left hover:underline"
              aria-label={`Look at ${title(part)}`}
              aria-current={looked === part || undefined}
              onClick={() => look(part)}
            >
              {title(part)}
            </button>
            {chosen.includes(part) && (
              <span className="flex">
                <Mover up part={title(part)} act={() => move(part, -1)} off={chosen[0] === part} />
                <Mover part={title(part)} act={() => move(part, 1)} off={chosen.at(-1) === part} />
              </span>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-3 flex items-center gap-3">
        <Button tone="main" onClick={make} disabled={chosen.length === 0 || making.make.isPending || past}>
          {making.make.isPending ? "Making it…" : "Make PDF"} <Key>D</Key>
        </Button>
        {making.error && (
          <p role="alert" className="border-l-4 border-ochre bg-sand px-2 py-1">
            {making.error.message}
          </p>
        )}
      </div>
      <Made packs={packs} title={title} />
    </>
  );
}

/** Names of parts as they are stored, as far as they are known. */
function partsOf(names: string[], packs: Packs): PackPart[] {
  return names.flatMap((name) => packs.parts.find((one) => one.part === name)?.part ?? []);
}

type MoverProps = { up?: boolean; part: string; act: () => void; off: boolean };

function Mover({ up, part, act, off }: MoverProps) {
  return (
    <button
      type="button"
      className="h-[27px] w-[27px] text-soft hover:text-petrol disabled:opacity-30"
      aria-label={`Move ${part} ${up ? "up" : "down"}`}
      disabled={off}
      onClick={act}
    >
      {up ? "↑" : "↓"}
    </button>
  );
}

type SetsProps = {
  packs: Packs;
  chosen: PackPart[];
  choose: (parts: PackPart[]) => void;
  making: ReturnType<typeof useMaking>;
};

/** Choices that the practice keeps under a name. */
function Sets({ packs, chosen, choose, making }: SetsProps) {
  const [naming, setNaming] = useState(false);
  const here = packs.sets.find((set) => set.parts.join() === chosen.join());
  if (naming) {
    return (
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const name = String(new FormData(event.currentTarget).get("name"));
          making.keep.mutate({ name, parts: chosen }, { onSuccess: () => setNaming(false) });
        }}
      >
        <input
          name="name"
          aria-label="Name of this choice"
          placeholder="Name of this choice"
          className="box w-44!"
          maxLength={60}
          required
          ref={(box) => box?.focus()}
          onKeyDown={(event) => event.key === "Escape" && setNaming(false)}
        />
        <Button type="submit">Keep</Button>
      </form>
    );
  }
  return (
    <span className="flex items-center gap-2">
      <select
        aria-label="Choice of parts"
        className="box w-auto!"
        value={here?.id ?? ""}
        onChange={(event) => {
          const set = packs.sets.find((one) => one.id === event.target.value);
          if (set) choose(partsOf(set.parts, packs));
        }}
      >
        {!here && <option value="">Own choice</option>}
        {packs.sets.map((set) => (
          <option key={set.id} value={set.id}>
            {set.name}
          </option>
        ))}
      </select>
      {here ? (
        <Button tone="quiet" aria-label={`Let ${here.name} go`} onClick={() => making.drop.mutate(here.id)}>
          Let go
        </Button>
      ) : (
        <Button tone="quiet" onClick={() => setNaming(true)} disabled={chosen.length === 0}>
          Keep as…
        </Button>
      )}
    </span>
  );
}

/** What was made, the newest first, and whether anything changed since. */
function Made({ packs, title }: { packs: Packs; title: (part: string) => string }) {
  const { opened } = useDesk();
  return (
    <section className="mt-5 border-t border-ink pt-3">
      <h2 className="mb-1 text-[15px]">Made so far</h2>
      {packs.made.length === 0 && <p className="text-soft">Nothing yet.</p>}
      <ul>
        {packs.made.map((made) => (
          <li key={made.id} className="row-line grid grid-cols-[1fr_auto] gap-x-3 py-1.5">
            <a
              className="text-petrol underline underline-offset-2"
              href={`/api/households/${opened.id}/packs/${made.id}`}
              download={`${opened.household.name} ${opened.household.year} rev ${made.revision}.pdf`}
            >
              {moment(made.at)} · {count(made.pages, "page")}
            </a>
            <span className="text-soft">
              {made.revision === opened.revision ? "unchanged since" : `of revision ${made.revision}`}
            </span>
            <span className="col-span-2 text-[12px] text-soft">
              {made.by} · {made.parts.map(title).join(", ")}
              {made.unsettled && <b className="text-ochre"> · marked as not final</b>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
