// A household erased for good: what goes with it, why it may not go yet, its name typed again, and what certifies it.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import type { ErasedHousehold, Erasing, HouseholdRow, PackInfo } from "../api/types";
import { focusAtOnce } from "../ui/focus";
import { count } from "../ui/format";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { erasedWords, SaveCertificate } from "./Erased";

type Props = { row: HouseholdRow; packs: PackInfo[]; onClose: () => void };

export function Erase({ row, packs, onClose }: Props) {
  const params = { path: { id: row.id } };
  const queries = useQueryClient();
  const [typed, setTyped] = useState("");
  const look = useQuery({
    queryKey: ["erasing", row.id],
    queryFn: () => ask(api.GET("/api/households/{id}/erasing", { params })),
    staleTime: 0,
  });
  const erasing = useMutation({
    mutationFn: () => ask(api.POST("/api/households/{id}/erase", { params, body: { name: typed } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["households"] }),
  });
  const done = erasing.data?.find((one) => one.household === row.id);
  const wrong = look.error ?? erasing.error;
  if (done) return <Certified of={done} packs={packs} onClose={onClose} />;
  return (
    <Sheet
      title={`Erase ${row.name} ${row.year} for good`}
      about="Not to be undone. Backups that were made before still hold it."
      onClose={onClose}
    >
      {wrong && (
        <p role="alert" className="mb-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          {wrong.message}
        </p>
      )}
      {!look.data && !look.error && <Waiting what="Counting what hangs on it…" />}
      {look.data?.refused && (
        <p role="alert" className="border-l-4 border-ochre bg-sand px-3 py-1.5">
          {look.data.refused}
        </p>
      )}
      {look.data && !look.data.refused && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            erasing.mutate();
          }}
        >
          <p>With it go:</p>
          <Counts of={look.data.counts} />
          <label className="mt-3 block">
            Type <b>{look.data.name}</b> to erase it
            <input
              className="box mt-1"
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              ref={focusAtOnce}
              autoComplete="off"
            />
          </label>
          <div className="mt-3 flex gap-2">
            <Button type="submit" tone="main" disabled={typed.trim() !== look.data.name || erasing.isPending}>
              Erase for good
            </Button>
            <Button onClick={onClose}>Keep it</Button>
          </div>
        </form>
      )}
    </Sheet>
  );
}

const PARTS: [keyof Erasing, string][] = [
  ["revisions", "revision"],
  ["trials", "trial"],
  ["files", "file"],
  ["filings", "filed return"],
  ["packs", "pack"],
  ["letters", "letter"],
  ["notes", "note"],
  ["fetches", "fetch"],
];

function Counts({ of }: { of: Erasing }) {
  const there = PARTS.filter(([part]) => of[part] > 0);
  return (
    <ul className="mt-1">
      {there.map(([part, name]) => (
        <li key={part} className="row-line py-0.5">
          {part === "fetches" && of[part] !== 1 ? `${of[part]} fetches` : count(of[part], name)}
        </li>
      ))}
    </ul>
  );
}

type CertifiedProps = { of: ErasedHousehold; packs: PackInfo[]; onClose: () => void };

function Certified({ of, packs, onClose }: CertifiedProps) {
  return (
    <Sheet
      title="It is erased"
      about="Nothing of what stood in it is left in this practice."
      onClose={onClose}
    >
      <p>{erasedWords(of, packs)}. With it went:</p>
      <Counts of={of.counts} />
      <div className="mt-3 flex items-center gap-3">
        <Button tone="main" onClick={onClose}>
          Close
        </Button>
        <SaveCertificate of={of} />
      </div>
    </Sheet>
  );
}
