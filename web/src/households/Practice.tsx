// The practice: its name, how it reviews, and who is in it. Administrators change it.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { PackInfo } from "../api/types";
import { useWho } from "../signin/SignInGate";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { Payers } from "./Payers";

export function usePractice() {
  return useQuery({ queryKey: ["practice"], queryFn: () => ask(api.GET("/api/practice")) });
}

export function Practice({ packs, onClose }: { packs: PackInfo[]; onClose: () => void }) {
  const practice = usePractice();
  const [payers, setPayers] = useState(false);
  if (payers) return <Payers packs={packs} onClose={onClose} />;
  return (
    <Sheet
      title="The practice"
      about="Its name stands on what goes to families. How it reviews decides who may clear a return."
      onClose={onClose}
    >
      {practice.data ? (
        <Opened of={practice.data} payers={() => setPayers(true)} onClose={onClose} />
      ) : (
        <Waiting what="Asking…" />
      )}
    </Sheet>
  );
}

type Practice = NonNullable<ReturnType<typeof usePractice>["data"]>;

type OpenedProps = { of: Practice; payers: () => void; onClose: () => void };

function Opened({ of, payers, onClose }: OpenedProps) {
  const queries = useQueryClient();
  const may = useWho().data?.role === "administrator";
  const keep = useMutation({
    mutationFn: (body: { name: string; own_review: boolean }) => ask(api.PUT("/api/practice", { body })),
    onSuccess: (kept) => {
      queries.setQueryData(["practice"], kept);
      onClose();
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        const form = new FormData(event.currentTarget);
        keep.mutate({ name: String(form.get("name")), own_review: form.get("own_review") === "on" });
      }}
    >
      <label className="block">
        Name
        <input name="name" className="box" defaultValue={of.name} maxLength={120} disabled={!may} />
      </label>
      <label className="mt-3 flex items-center gap-2">
        <input type="checkbox" name="own_review" defaultChecked={of.own_review} disabled={!may} />
        People may review their own work
      </label>
      <p className="text-soft">For a practice of one. Otherwise a reviewer clears what somebody else did.</p>
      <h3 className="mt-4 mb-1">People</h3>
      <ul>
        {of.people.map((one) => (
          <li key={one.id} className="row-line flex justify-between py-1">
            <span>{one.name}</span>
            <span className="text-soft">{one.role}</span>
          </li>
        ))}
      </ul>
      {keep.error && (
        <p role="alert" className="mt-3 border-l-4 border-ochre bg-sand px-3 py-2">
          {keep.error.message}
        </p>
      )}
      <div className="mt-4 flex gap-2">
        {may && (
          <Button type="submit" tone="main" disabled={keep.isPending}>
            Keep
          </Button>
        )}
        <Button onClick={payers}>Known payers…</Button>
        <Button onClick={onClose}>Close</Button>
        {!may && <p className="self-center text-soft">An administrator changes this.</p>}
      </div>
    </form>
  );
}
