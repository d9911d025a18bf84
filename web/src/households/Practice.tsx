// The practice: its name, how it reviews, and who is in it. Administrators change it.
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { PackInfo } from "../api/types";
import { useWho } from "../signin/SignInGate";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { Account } from "./Account";
import { Audit } from "./Audit";
import { Erased } from "./Erased";
import { Payers } from "./Payers";
import { People } from "./People";
import { usePractice } from "./usePractice";

export function Practice({ packs, onClose }: { packs: PackInfo[]; onClose: () => void }) {
  const practice = usePractice();
  const [payers, setPayers] = useState(false);
  const [people, setPeople] = useState(false);
  const [erased, setErased] = useState(false);
  const [account, setAccount] = useState(false);
  const [audit, setAudit] = useState(false);
  if (account) return <Account onClose={onClose} />;
  if (audit) return <Audit onClose={onClose} />;
  if (erased) return <Erased packs={packs} onClose={onClose} />;
  if (people) return <People onClose={onClose} />;
  if (payers) return <Payers packs={packs} onClose={onClose} />;
  return (
    <Sheet
      title="The practice"
      about="Its name stands on what goes to families; how it reviews, and who sees what."
      onClose={onClose}
    >
      {practice.data ? (
        <Opened
          of={practice.data}
          account={() => setAccount(true)}
          payers={() => setPayers(true)}
          people={() => setPeople(true)}
          erased={() => setErased(true)}
          audit={() => setAudit(true)}
          onClose={onClose}
        />
      ) : (
        <Waiting what="Asking…" />
      )}
    </Sheet>
  );
}

type Practice = NonNullable<ReturnType<typeof usePractice>["data"]>;

type OpenedProps = Record<"account" | "payers" | "people" | "erased" | "audit" | "onClose", () => void> & {
  of: Practice;
};

function Opened({ of, account, payers, people, erased, audit, onClose }: OpenedProps) {
  const queries = useQueryClient();
  const may = useWho().data?.role === "administrator";
  const keep = useMutation({
    mutationFn: (body: { name: string; own_review: boolean; own_sight: boolean }) =>
      ask(api.PUT("/api/practice", { body })),
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
        keep.mutate({
          name: String(form.get("name")),
          own_review: form.get("own_review") === "on",
          own_sight: form.get("own_sight") === "on",
        });
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
      <label className="mt-3 flex items-center gap-2">
        <input type="checkbox" name="own_sight" defaultChecked={of.own_sight} disabled={!may} />
        People see only the households in their own hands
      </label>
      <p className="text-soft">
        Those that they work on or are asked to review. Administrators see all, and put them into hands under
        Hand-over.
      </p>
      <h3 className="mt-4 mb-1">People</h3>
      <ul>
        {of.people.map((one) => (
          <li key={one.id} className="row-line flex justify-between py-1">
            <span>{one.name}</span>
            <span className="text-soft">{one.disabled ? "may not sign in" : one.role}</span>
          </li>
        ))}
      </ul>
      {keep.error && (
        <p role="alert" className="mt-3 border-l-4 border-ochre bg-sand px-3 py-2">
          {keep.error.message}
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        {may && (
          <Button type="submit" tone="main" disabled={keep.isPending}>
            Keep
          </Button>
        )}
        {may && <Button onClick={people}>People…</Button>}
        {may && <Button onClick={audit}>Audit…</Button>}
        {may && <Button onClick={erased}>Erased…</Button>}
        <Button onClick={payers}>Known payers…</Button>
        <Button onClick={account}>Your account…</Button>
        <Button onClick={onClose}>Close</Button>
        {!may && <p className="self-center text-soft">An administrator changes this.</p>}
      </div>
    </form>
  );
}
