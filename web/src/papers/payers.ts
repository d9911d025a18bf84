// Payers that the practice knows: offered where a payer's name or number is typed.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { api, ask } from "../api/client";
import type { Payer } from "../api/types";
import { useDesk } from "../desk/useDesk";

export function useKnownPayers(country: string, text: string, all = false) {
  return useQuery({
    queryKey: ["payers", country, text],
    queryFn: () => ask(api.GET("/api/payers", { params: { query: { country, text } } })),
    enabled: all || text.length > 0,
    placeholderData: keepPreviousData,
  });
}

/** What is typed, and the payers whose names or numbers begin so. */
export function useOffered() {
  const { opened } = useDesk();
  const [typed, setTyped] = useState("");
  const known = useKnownPayers(opened.household.country, useDeferredValue(typed.trim())).data ?? [];
  /** The one payer of that name, or with that number. */
  const one = (text: unknown, of: "name" | "number"): Payer | undefined => {
    const found = known.filter((payer) => payer[of] !== "" && same(payer[of], String(text ?? "")));
    return found.length === 1 ? found[0] : undefined;
  };
  return { known, setTyped, one };
}

function same(one: string, other: string) {
  const plain = (text: string) => text.trim().toLowerCase();
  return plain(one) === plain(other);
}
