// What taking a slip does to the tax and the balance, and what is left to settle.
import type { Offered } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { balance, difference } from "../ui/format";
import { Button, Key } from "../ui/pieces";
import { toDecide, useIfTaken, useSettling } from "./useOutside";

export function IfTaken({ offered, all, next }: { offered: Offered; all: Offered[]; next: () => void }) {
  const { past } = useDesk();
  const wanted = offered.state === "new" || offered.state === "differs";
  const effect = useIfTaken(offered.slip, wanted);
  const settle = useSettling();
  const open = toDecide(all);
  const agreeing = open.filter((one) => one.state === "agrees");
  const more = (then: string, now: string) => {
    const apart = Number(then) - Number(now);
    return apart === 0 ? "no change" : difference(String(apart));
  };
  return (
    <div className="space-y-5">
      {wanted && (
        <section>
          <h2 className="mb-1.5">If you take it</h2>
          {effect.error && <p className="text-soft">{effect.error.message}</p>}
          {!effect.data && !effect.error && <p className="text-soft">Trying it…</p>}
          {effect.data && (
            <>
              <Pair label="Total tax" value={more(effect.data.then.total, effect.data.now.total)} />
              <Pair label="Balance now" value={balance(effect.data.now.balance)} />
              <Pair label="Balance then" value={balance(effect.data.then.balance)} strong />
              {!effect.data.then.covered && (
                <p className="mt-1 text-soft">The figures are then no result: an open point says why.</p>
              )}
            </>
          )}
        </section>
      )}
      {!past && agreeing.length > 0 && (
        <section>
          <h2 className="mb-1.5">Those that agree</h2>
          <p className="mb-2 text-soft">
            To be held is a mark of its own; whether a paper was checked against its original stays as it is.
          </p>
          <Button
            onClick={() =>
              void settle(
                agreeing.map((one) => one.slip),
                "take",
              )
            }
          >
            Mark {agreeing.length === 1 ? "the one" : `all ${agreeing.length}`} that agree
            {agreeing.length === 1 ? "s" : ""}
          </Button>
        </section>
      )}
      <section>
        <h2 className="mb-1.5">To settle</h2>
        <p>
          {all.length - open.length} of {all.length} slips are settled.
        </p>
        {open.some((one) => one.slip !== offered.slip) && (
          <Button tone="quiet" className="-ml-1" onClick={next}>
            Go to the next
          </Button>
        )}
        <p className="mt-1 text-soft">
          <Key>[</Key> <Key>]</Key> walk them
        </p>
      </section>
    </div>
  );
}

function Pair({ label, value, strong }: { label: string; value: string; strong?: boolean }) {
  return (
    <div
      className={`row-line flex justify-between gap-3 py-1 ${strong ? "border-b border-ink font-bold" : ""}`}
    >
      <span>{label}</span>
      <b className="whitespace-nowrap">{value}</b>
    </div>
  );
}
