// One of the practice's people, or what stands before them.
type Offered = { id: string; name: string };

type Props = {
  label: string;
  /** What may be chosen instead of a person, first. */
  before: Offered[];
  people: Offered[];
  value: string;
  choose: (id: string) => void;
  disabled?: boolean;
};

export function PersonChoice({ label, before, people, value, choose, disabled = false }: Props) {
  return (
    <label className="mt-1.5 block">
      {label}
      <select
        className="box"
        value={value}
        disabled={disabled}
        onChange={(event) => choose(event.target.value)}
      >
        {[...before, ...people].map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  );
}
