// What of the households is shown: by law, year, state of work, hands, and whether something holds them up.
import type { PackInfo } from "../api/types";
import { useWho } from "../signin/SignInGate";
import { yearOf } from "../ui/format";
import { STAGES, stageName } from "../ui/stages";
import type { Filter } from "./Households";
import { usePractice } from "./usePractice";

type Props = { packs: PackInfo[]; filter: Filter; show: (filter: Filter) => void };

export function Filters({ packs, filter, show }: Props) {
  const laws = packs.map((pack) => ({ value: pack.id, label: pack.name }));
  const planning = packs.flatMap((pack) => pack.planning);
  const all = [...new Set(packs.flatMap((pack) => pack.years))].toSorted().toReversed();
  const years = all.map((year) => ({ value: String(year), label: yearOf(year, planning) }));
  const held = [
    { value: "true", label: "Held up by open points" },
    { value: "false", label: "Nothing holds them up" },
  ];
  const me = useWho().data?.id;
  const people = usePractice().data?.people ?? [];
  const whose = people.map(({ id, name }) => ({
    value: id,
    label: id === me ? "In my hands" : `With ${name}`,
  }));
  const mineFirst = whose.toSorted((a, b) => Number(b.value === me) - Number(a.value === me));
  const stages = STAGES.map((stage) => ({ value: stage, label: stageName(stage) }));
  return (
    <div className="mt-3 flex flex-wrap gap-2">
      <Select
        label="Show the law"
        all="Every law"
        options={laws}
        value={filter.law}
        choose={(law) => show({ ...filter, law })}
      />
      <Select
        label="Show the year"
        all="Every year"
        options={years}
        value={filter.year?.toString()}
        choose={(year) => show({ ...filter, year: year === undefined ? undefined : Number(year) })}
      />
      <Select
        label="Show the state of work"
        all="Every state of work"
        options={stages}
        value={filter.stage}
        choose={(stage) => show({ ...filter, stage: STAGES.find((one) => one === stage) })}
      />
      <Select
        label="Show in whose hands"
        all="In anyone's hands"
        options={mineFirst}
        value={filter.whose}
        choose={(whose) => show({ ...filter, whose })}
      />
      <Select
        label="Show by open points"
        all="With and without open points"
        options={held}
        value={filter.held?.toString()}
        choose={(held) => show({ ...filter, held: held === undefined ? undefined : held === "true" })}
      />
      <Select
        label="Show what was put away"
        all="In use"
        options={[{ value: "true", label: "Put away" }]}
        value={filter.away?.toString()}
        choose={(away) => show({ ...filter, away: away ? true : undefined })}
      />
    </div>
  );
}

type SelectProps = {
  label: string;
  /** What stands where nothing is chosen; something always is where it is left out. */
  all?: string;
  options: { value: string; label: string }[];
  value: string | undefined;
  choose: (value: string | undefined) => void;
};

export function Select({ label, all, options, value, choose }: SelectProps) {
  return (
    <select
      aria-label={label}
      className={`box w-auto! ${value ? "border-petrol font-semibold text-petrol" : ""}`}
      value={value ?? ""}
      onChange={(event) => choose(event.target.value || undefined)}
    >
      {all !== undefined && <option value="">{all}</option>}
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
}
