// F1 in a box: what it holds, where it stands on the paper, where it goes, the rule, and an example that is tried.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ask } from "../api/client";
import type { AboutBox as About, Field, Secret } from "../api/types";
import { shownEntry } from "../entry/EntryBox";
import { difference, isZero, units } from "../ui/format";
import { Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { paperName } from "./newPaper";
import { useDesk } from "./useDesk";

export function AboutBox() {
  const [at, setAt] = useState<Secret | null>(null);
  const [from, setFrom] = useState<HTMLElement | null>(null);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key !== "F1") return;
      const box = document.activeElement?.closest<HTMLElement>("[data-at]");
      if (!box?.dataset.at) return;
      event.preventDefault();
      setFrom(box);
      setAt(JSON.parse(box.dataset.at));
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
  // When the sheet is gone one goes on where one was.
  useEffect(() => {
    if (!at) from?.focus();
  }, [at, from]);
  return at && <Told at={at} close={() => setAt(null)} />;
}

function useField(at: Secret): { field: Field | undefined; stands: string } {
  const { opened, pack } = useDesk();
  const paper = opened.household.papers?.find((one) => one.id === at.paper);
  const kind = pack.paper_kinds.find((one) => one.id === paper?.kind);
  const person = opened.household.people.find((one) => one.id === at.person);
  const among = paper
    ? [...(at.row ? [] : (kind?.boxes ?? [])), ...(kind?.columns ?? [])]
    : person
      ? pack.person_questions
      : pack.household_questions;
  const field = among.find((one) => one.id === at.field);
  const number = field?.number ? `, box ${field.number}` : "";
  const stands = paper
    ? `${paperName(paper)}${number} · ${kind?.name}`
    : `Asked about ${person?.name ?? "the household"}`;
  return { field, stands };
}

/** What may stand in a box, in words. */
function holds({ kind, secret, shape }: Field): string {
  switch (kind.type) {
    case "amount":
      return kind.negative ? "An amount; it may be below zero." : "An amount, not below zero.";
    case "count":
      return `A whole number, at most ${units(String(kind.max))}.`;
    case "number":
      return `A number, not below zero, with at most ${kind.places} decimals.`;
    case "yes_no":
      return "Yes or no.";
    case "date":
      return "A day.";
    case "choice":
      return `One of: ${kind.options.map((option) => option.label).join("; ")}.`;
    case "person":
      return "A person of the household.";
    default:
      return `${secret ? "A number that is sealed where it is stored" : "Words"}${shape ? `, written ${shape}` : ""}.`;
  }
}

function Told({ at, close }: { at: Secret; close: () => void }) {
  const { opened } = useDesk();
  const { field, stands } = useField(at);
  const about = useQuery({
    queryKey: ["about-box", opened.id, opened.revision, at],
    queryFn: ({ signal }) => {
      const { person, paper, row } = at;
      const query = { field: at.field ?? "", person, paper, row };
      return ask(
        api.GET("/api/households/{id}/about-box", { params: { path: { id: opened.id }, query }, signal }),
      );
    },
  });
  if (!field) return null;
  return (
    <Sheet title={field.label} about={stands} onClose={close}>
      <p>{holds(field)}</p>
      {field.help && <p className="mt-1">{field.help}</p>}
      {about.isPending && <Waiting what="Trying an example…" />}
      {about.error && <p className="mt-2 text-ochre">{about.error.message}</p>}
      {about.data && <Goes about={about.data} field={field} />}
    </Sheet>
  );
}

function Goes({ about, field }: { about: About; field: Field }) {
  const { opened } = useDesk();
  const { example, lines, direct, total } = about;
  if (!example) {
    const words = field.kind.type === "text";
    return (
      <p className="mt-2 text-soft">
        {words ? "Words go to no line of the computation." : "No example of it can be tried here and now."}
      </p>
    );
  }
  const shown = shownEntry(field, opened.household.people, example);
  return (
    <>
      <h3 className="mt-4 mb-1">{direct ? "Where it goes" : "What it decides"}</h3>
      {lines.length === 0 && <p className="text-soft">Here and now it moves no line.</p>}
      <ul>
        {lines.map((line) => (
          <li key={line.line + line.scope} className="row-line py-1">
            <span className="flex justify-between gap-3">
              <b className="font-semibold">{line.label}</b>
              <span className="whitespace-nowrap">
                {line.now && line.now !== line.then ? `${units(line.now)} → ` : ""}
                {units(line.then)}
              </span>
            </span>
            <span className="block text-[12px] text-soft">
              {[line.place, line.cite].filter(Boolean).join(" · ")}
            </span>
            {direct && <span className="block text-[12px] text-soft">{line.how}</span>}
          </li>
        ))}
      </ul>
      <h3 className="mt-4 mb-1">An example</h3>
      <p>
        With <b>{shown}</b> in it the lowest tax {isZero(total ?? "0") ? "stays as it is" : "changes by "}
        {!isZero(total ?? "0") && <b>{difference(total ?? "0")}</b>}. Nothing was stored.
      </p>
    </>
  );
}
