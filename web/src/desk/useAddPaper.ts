// Adds a paper and opens it at its title.
import { useNavigate } from "@tanstack/react-router";
import type { PaperKind } from "../api/types";
import { newPaper } from "./newPaper";
import { keepRecent } from "./recentKinds";
import { useDesk } from "./useDesk";

/** Whether the paper was added. */
export function useAddPaper() {
  const { opened, pack, edit } = useDesk();
  const navigate = useNavigate();
  return async (kind: PaperKind, owners: string[]): Promise<boolean> => {
    const paper = newPaper(kind, opened.household, owners);
    if ((await edit([{ do: "add_paper", paper }])) !== null) return false;
    keepRecent(pack.id, kind.id);
    const search = { paper: paper.id, field: "title" };
    void navigate({ to: "/h/$id/papers", params: { id: opened.id }, search });
    return true;
  };
}
