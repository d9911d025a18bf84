// What can be done to a household in the list.
import { DropdownMenu } from "radix-ui";
import type { HouseholdRow, PackInfo } from "../api/types";
import { useWho } from "../signin/SignInGate";
import type { Actions } from "./Households";
import { hasYear } from "./HouseholdTable";

type Props = { row: HouseholdRow; packs: PackInfo[]; act: Actions; rename: () => void };

export function RowMenu({ row, packs, act, rename }: Props) {
  const next = row.year + 1;
  const administers = useWho().data?.role === "administrator";
  const away = row.archived_at !== null && row.archived_at !== undefined;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="px-2 py-0.5 text-petrol hover:bg-lilac data-[state=open]:bg-lilac"
        aria-label={`More about ${row.name} ${row.year}`}
      >
        More ▾
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-30 min-w-44 border border-rule bg-sheet py-1 shadow-[0_6px_18px_#2a1b3333]"
        >
          {hasYear(packs, row.country, next) && (
            <Item act={() => act.forward([row])}>Carry forward to {next}</Item>
          )}
          <Item act={() => act.divide(row)}>Divide in two…</Item>
          <Item act={rename}>Rename</Item>
          <Item act={() => act.copy(row)}>Copy</Item>
          <Item act={() => act.archive(row, !away)}>{away ? "Take out again" : "Put away"}</Item>
          <Item act={() => act.remove(row)}>Delete</Item>
          {away && administers && <Item act={() => act.erase(row)}>Erase for good…</Item>}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Item({ act, children }: { act: () => void; children: React.ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={act}
      className="cursor-pointer px-3 py-1 outline-none data-[highlighted]:bg-wash"
    >
      {children}
    </DropdownMenu.Item>
  );
}
