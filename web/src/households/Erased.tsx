// The households that were erased for good: which, by whom, how much; nothing of what stood in them.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { ErasedHousehold, PackInfo } from "../api/types";
import { count, dayOf } from "../ui/format";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

type Props = { packs: PackInfo[]; onClose: () => void };

export function Erased({ packs, onClose }: Props) {
  const erased = useQuery({ queryKey: ["erased"], queryFn: () => ask(api.GET("/api/erased")), staleTime: 0 });
  return (
    <Sheet
      title="Erased for good"
      about="Nothing of what stood in them is left but in backups made before."
      onClose={onClose}
    >
      {!erased.data && <Waiting what="Asking…" />}
      {erased.data?.length === 0 && <p className="text-soft">No household was erased yet.</p>}
      <ul>
        {erased.data?.map((one) => (
          <li key={one.household} className="row-line flex items-baseline justify-between gap-3 py-1">
            <span>{erasedWords(one, packs)}</span>
            <SaveCertificate of={one} />
          </li>
        ))}
      </ul>
      <div className="mt-4">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Sheet>
  );
}

/** What was erased, by whom and when. */
export function erasedWords(of: ErasedHousehold, packs: PackInfo[]) {
  const law = packs.find((pack) => pack.id === of.country)?.name ?? of.country;
  const what = `${law} ${of.year}, ${count(of.counts.revisions, "revision")}`;
  return `${what}, erased by ${of.by} on ${dayOf(of.at.slice(0, 10))}`;
}

export function SaveCertificate({ of }: { of: ErasedHousehold }) {
  const file = JSON.stringify({ hembo_erased: 1, ...of }, null, 2);
  return (
    <a
      className="whitespace-nowrap text-petrol underline underline-offset-2"
      download={`erased-${of.household}.json`}
      href={`data:application/json;charset=utf-8,${encodeURIComponent(file)}`}
    >
      Save the certificate
    </a>
  );
}
