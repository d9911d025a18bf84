import { Link } from "@tanstack/react-router";
import type { Paper, Person } from "../api/types";
import { paperName } from "../desk/newPaper";
import { useDesk } from "../desk/useDesk";
import { paperFar } from "../points/far";
import { ChooseFile } from "../slips/ChooseFile";
import { count, isZero, units } from "../ui/format";
import { FAR, Mark } from "../ui/Mark";
import { Key } from "../ui/pieces";

type Group = { key: string; title: string; papers: Paper[] };

/** Papers by their owners: each person alone in the household's order, then those shared. */
export function groups(people: Person[], papers: Paper[]): Group[] {
  const name = (id: string) => people.find((p) => p.id === id)?.name.split(" ")[0] ?? id;
  const found = new Map<string, Group>(
    people.map((p) => [p.id, { key: p.id, title: name(p.id), papers: [] }]),
  );
  for (const paper of papers) {
    const owners = paper.owners.map((o) => o.person);
    const key = owners.join("+");
    const title = owners.length > 1 ? `${owners.map(name).join(" and ")}, shared` : name(key);
    const group = found.get(key) ?? { key, title, papers: [] };
    group.papers.push(paper);
    found.set(key, group);
  }
  return [...found.values()].filter((g) => g.papers.length > 0);
}

/** Whether a paper is checked, and what of it changed since. */
export function checkOf({ checked, changed = [], held }: Paper): string {
  if (!checked) return held ? `held by ${held.by}, not checked against the original` : "not checked";
  const told = changed.map((c) => (c === "rows" ? "its list" : c === "owners" ? "its owners" : `box ${c}`));
  return told.length > 0 ? `checked, ${told.join(", ")} changed since` : "checked against the original";
}

export function PaperList({ chosen }: { chosen: string | undefined }) {
  const { opened, pack } = useDesk();
  const { household, outcome } = opened;
  const amount = (paper: Paper) => {
    const headline = pack.paper_kinds.find((kind) => kind.id === paper.kind)?.headline;
    if (!headline) return "";
    const now = outcome.papers.find((p) => p.paper === paper.id)?.amount ?? "0";
    const before = paper.before?.[headline];
    if (!isZero(now) || !before) return units(now);
    const year = household.year - 1;
    return (
      <i className="text-soft" title={`Last year's; nothing is keyed for ${household.year}`}>
        {year}: {units(String(before))}
      </i>
    );
  };
  return (
    <>
      <Link
        to="/h/$id/held"
        params={{ id: opened.id }}
        search={{}}
        className="flex h-[30px] items-center justify-between border-b border-rule px-4 text-petrol hover:bg-lilac"
      >
        Held by the authority <Key>A</Key>
      </Link>
      <ChooseFile className="flex h-[30px] w-full items-center justify-between border-b border-rule px-4 text-petrol hover:bg-lilac">
        A slip as a file <span className="text-soft">or drop it here</span>
      </ChooseFile>
      {groups(household.people, household.papers ?? []).map((group) => (
        <div key={group.key}>
          <h2 className="flex justify-between px-4 pt-4 pb-1 text-plum">
            {group.title} <span>{count(group.papers.length, "paper")}</span>
          </h2>
          <ul>
            {group.papers.map((paper) => (
              <li key={paper.id}>
                <Link
                  to="/h/$id/papers"
                  params={{ id: opened.id }}
                  search={{ paper: paper.id }}
                  aria-current={paper.id === chosen ? "true" : undefined}
                  className={`grid h-[26px] grid-cols-[13px_86px_1fr_auto_16px] items-center gap-x-2 border-l-3 px-3.5 ${
                    paper.id === chosen ? "border-petrol bg-wash" : "border-transparent hover:bg-lilac"
                  }`}
                >
                  <Mark far={paperFar(paper, opened)} of={paperName(paper)} />
                  <b className={`truncate ${paper.title ? "" : "col-span-2"}`}>{paper.kind}</b>
                  {paper.title && <span className="truncate">{paper.title}</span>}
                  <span>{amount(paper)}</span>
                  <span
                    className="text-petrol"
                    role="img"
                    aria-label={checkOf(paper)}
                    title={paper.changed?.length || paper.held ? checkOf(paper) : undefined}
                  >
                    {paper.changed?.length ? "!" : paper.held ? "⌂" : ""}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </div>
      ))}
      <p className="px-4 pt-4 text-soft">
        <Key>N</Key> new paper · <Key>[</Key> <Key>]</Key> walk
        <span className="mt-1 flex flex-wrap items-center gap-x-3">
          {(["empty", "begun", "complete", "checked"] as const).map((far) => (
            <span key={far} className="flex items-center gap-1">
              <Mark far={far} of="Mark" /> {FAR[far]}
            </span>
          ))}
          <span>
            <span className="text-petrol">⌂</span> held by the authority
          </span>
        </span>
      </p>
    </>
  );
}
