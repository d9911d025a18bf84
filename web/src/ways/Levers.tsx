// What the family may still do beside the return: advice, with what each step would be worth in a year like this one.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { Advice } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { difference, isZero, units } from "../ui/format";

/** Asked anew for each revision: what a step is worth moves with what is keyed. */
function useAdvice(): Advice[] {
  const { opened } = useDesk();
  const { id, revision } = opened;
  const asked = useQuery({
    queryKey: ["advice", id, revision],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/advice", { params: { path: { id } }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
  return asked.data ?? [];
}

export function Levers() {
  const advice = useAdvice();
  if (advice.length === 0) return null;
  return (
    <section aria-label="What could still be done" className="border-t border-rule pt-2.5 pb-1.5">
      <b>What could still be done</b>
      <p className="pb-1 text-soft">No way of this return: of a year like it, at its figures.</p>
      {advice.map((one) => (
        <OneLever key={one.whose + one.what} advice={one} />
      ))}
    </section>
  );
}

function OneLever({ advice }: { advice: Advice }) {
  return (
    <section aria-label={`${advice.what}, ${advice.whose}`} className="py-1">
      <h3 className="flex items-baseline justify-between gap-3 font-semibold">
        {advice.what}
        <span className="text-[12px] font-normal text-soft">{advice.whose}</span>
      </h3>
      <table className="w-full border-collapse">
        <tbody>
          {advice.steps.map((step) => (
            <tr key={step.to + step.amount} className="align-baseline">
              <th scope="row" className="py-0.5 pl-6 text-left font-normal">
                {step.amount && <b className="font-semibold">{units(step.amount)} </b>}
                {step.to}
              </th>
              <td
                className={`pl-3 text-right whitespace-nowrap ${Number(step.change) < 0 ? "text-petrol" : ""}`}
              >
                {isZero(step.change) ? "no tax" : `${difference(step.change)} tax`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="pl-6 text-[12px] text-soft">
        {advice.words} {advice.cite}
      </p>
    </section>
  );
}
