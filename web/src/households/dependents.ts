// Dependents as a list that is typed or pasted: one a line, with name, day of birth and relationship.
import type { PackInfo } from "../api/types";
import { typedDay } from "../entry/dates";

export type Dependent = { name: string; born?: string; relationship?: string };

/** The relationships of a law, the first of them a child. */
export function relationships(pack: PackInfo) {
  const question = pack.person_questions.find((asked) => asked.id === pack.relationship);
  return question?.kind.type === "choice" ? question.kind.options : [];
}

/** The dependents of a text, or what is wrong with its first bad line. */
export function dependentsOf(text: string, pack: PackInfo, year: number): Dependent[] | string {
  const found: Dependent[] = [];
  for (const [i, line] of text.split("\n").entries()) {
    if (!line.trim()) continue;
    const dependent = dependentOf(line, pack, year);
    if (typeof dependent === "string") return `Line ${i + 1}: ${dependent}`;
    found.push(dependent);
  }
  return found;
}

function dependentOf(line: string, pack: PackInfo, year: number): Dependent | string {
  const [name = "", ...rest] = line.split(/[;,\t]/).map((part) => part.trim());
  const dependent: Dependent = { name, relationship: relationships(pack)[0]?.id };
  for (const part of rest.filter(Boolean)) {
    if (/\d/.test(part)) {
      const day = typedDay(part, pack.days, year);
      if ("fault" in day) return day.fault;
      dependent.born = day.iso;
      continue;
    }
    const named = relationships(pack).find(({ label }) => label.toLowerCase().startsWith(part.toLowerCase()));
    if (!named) return `“${part}” is no relationship: ${relationships(pack)[0]?.label} and so on.`;
    dependent.relationship = named.id;
  }
  return dependent;
}
