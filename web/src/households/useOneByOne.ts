// Something done with many households, one after the other.
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { HouseholdRow } from "../api/types";

/** What became of the households so far, in their order; nothing begins before there is something to do. */
export function useOneByOne<Result>(
  rows: HouseholdRow[],
  work: ((row: HouseholdRow) => Promise<Result>) | null,
): Result[] {
  const [results, setResults] = useState<Result[]>([]);
  const begun = useRef(false);
  const queries = useQueryClient();
  useEffect(() => {
    if (begun.current || !work) return;
    begun.current = true;
    const all = async () => {
      for (const row of rows) {
        const result = await work(row);
        setResults((before) => [...before, result]);
      }
      await queries.invalidateQueries({ queryKey: ["households"] });
    };
    void all();
  }, [rows, work, queries]);
  return results;
}
