// A household divided in two, one for each filer: what would go where, what somebody has to decide, and the two that were made.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { api, ask } from "../api/client";
import type { Dividing, HouseholdRow, NamedHousehold } from "../api/types";
import { count } from "../ui/format";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

type Props = { row: HouseholdRow; onClose: () => void };

export function Divide({ row, onClose }: Props) {
  const params = { path: { id: row.id } };
  const key = ["dividing", row.id];
  const queries = useQueryClient();
  const look = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET("/api/households/{id}/divide", { params })),
    staleTime: 0,
  });
  const making = useMutation({
    mutationFn: (replace: boolean) => {
      const body = { base_revision: look.data?.revision ?? 0, replace };
      return ask(api.POST("/api/households/{id}/divide", { params, body }));
    },
    onSettled: async () => {
      await queries.invalidateQueries({ queryKey: key });
      await queries.invalidateQueries({ queryKey: ["households"] });
    },
  });
  const wrong = look.error ?? making.error;
  return (
    <Sheet
      title={`${row.name} ${row.year} divided in two`}
      about="One household for each who files. This one stays as it is."
      size="wide"
      onClose={onClose}
    >
      {wrong && (
        <p role="alert" className="mb-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          {wrong.message}
        </p>
      )}
      {!look.data && !look.error && <Waiting what="Looking at what goes where…" />}
      {look.data?.refused && (
        <p role="alert" className="border-l-4 border-ochre bg-sand px-3 py-1.5">
          {look.data.refused}
        </p>
      )}
      {look.data?.from && (
        <p className="mt-2">
          It came from <To household={look.data.from} />.
        </p>
      )}
      {look.data && !look.data.refused && (
        <Plan of={look.data} busy={making.isPending} make={(replace) => making.mutate(replace)} />
      )}
    </Sheet>
  );
}

function To({ household }: { household: NamedHousehold }) {
  return (
    <Link to="/h/$id/spread" params={{ id: household.id }} search={{}} className="text-petrol underline">
      {household.name}
    </Link>
  );
}

type PlanProps = { of: Dividing; busy: boolean; make: (replace: boolean) => void };

function Plan({ of, busy, make }: PlanProps) {
  const open = of.went.filter((one) => one.decide).length;
  const there = of.into.length > 0;
  return (
    <>
      {there && (
        <p role="status" className="mb-2 border-l-4 border-plum bg-lilac px-3 py-1.5">
          It was divided into{" "}
          {of.into.map((one, n) => (
            <span key={one.id}>
              {n > 0 && ", "}
              <To household={one} />
            </span>
          ))}
          .
        </p>
      )}
      <p className="mb-1 text-soft">
        {open > 0
          ? `${count(open, "entry", "entries")} of ${of.went.length} must be decided: look at them in the two households.`
          : `${count(of.went.length, "entry", "entries")}, each to its owner or by half.`}
      </p>
      <table className="w-full">
        <thead>
          <tr className="border-b border-ink text-left text-soft">
            <th className="font-normal">What</th>
            <th className="font-normal">goes to</th>
            <th className="font-normal">how</th>
          </tr>
        </thead>
        <tbody>
          {of.went.map((one, n) => (
            <tr key={n} className="row-line align-baseline">
              <td className="py-0.5 pr-3">{one.what}</td>
              <td className="py-0.5 pr-3 whitespace-nowrap">{one.to}</td>
              <td className="py-0.5">
                {one.decide && <b className="text-ochre">to be decided: </b>}
                {one.how}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex gap-2">
        <Button tone="main" disabled={busy} onClick={() => make(false)}>
          {there ? "Make two more" : `Make ${of.names.join(" and ")}`}
        </Button>
        {there && (
          <Button disabled={busy} onClick={() => make(true)}>
            Put two new ones in their place
          </Button>
        )}
      </div>
    </>
  );
}
