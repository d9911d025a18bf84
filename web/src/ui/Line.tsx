// A question with its box beside it.
type Props = { label: string; help?: string; told?: string; children: React.ReactNode };

export function Line({ label, help, told, children }: Props) {
  return (
    <div className="row-line grid grid-cols-[1fr_9.5rem] items-center gap-x-3 py-1">
      <span>
        {label}
        {help && <span className="block text-[12px] text-soft">{help}</span>}
        {told && <span className="block text-[12px] text-petrol">{told}</span>}
      </span>
      {children}
    </div>
  );
}
