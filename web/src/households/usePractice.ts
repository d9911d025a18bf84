// The practice and everyone in it.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";

export function usePractice() {
  return useQuery({ queryKey: ["practice"], queryFn: () => ask(api.GET("/api/practice")) });
}
