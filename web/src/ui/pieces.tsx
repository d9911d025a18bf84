// Small pieces that several views share.
import type { ComponentProps, ReactNode } from "react";

export function Button({
  tone = "plain",
  className = "",
  ...rest
}: ComponentProps<"button"> & { tone?: Tone }) {
  return <button type="button" {...rest} className={`${TONES[tone]} ${className}`} />;
}

type Tone = "plain" | "main" | "quiet" | "bar";

const TONES: Record<Tone, string> = {
  plain: "border border-rule bg-sheet px-3 py-1.5 hover:border-plum disabled:opacity-50",
  main: "bg-petrol px-3.5 py-1.5 font-semibold text-white hover:bg-ink disabled:opacity-50",
  quiet: "px-1 text-petrol underline decoration-1 underline-offset-2 hover:text-ink",
  bar: "px-2 py-1 text-white/90 hover:bg-white/15 disabled:opacity-45",
};

/** A key of the keyboard. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd className="inline-block min-w-4.5 border border-current px-1 text-center font-sans text-[12px] leading-4">
      {children}
    </kbd>
  );
}

/** The wedge of a limit. Its words are for screen readers; sighted people read the panel. */
export function Notch({ lost }: { lost: string }) {
  return (
    <svg
      viewBox="0 0 7 8"
      className="ml-1.5 inline-block h-[9px] w-[8px] fill-ochre"
      role="img"
      aria-label={`${lost} lost to a limit`}
    >
      <path d="M7 0v8L0 4z" />
    </svg>
  );
}

/** Solid blocks, hollow is worth a look. */
export function Diamond({ solid }: { solid: boolean }) {
  return (
    <svg viewBox="0 0 10 10" className="inline-block size-[11px] shrink-0" aria-hidden="true">
      <path
        d="M5 .7 9.3 5 5 9.3.7 5z"
        fill={solid ? "currentColor" : "none"}
        stroke="currentColor"
        strokeWidth="1.2"
      />
    </svg>
  );
}

/** A bar that shows a part of a whole. */
export function Meter({
  part,
  whole,
  label,
  tone = "bg-plum",
}: {
  part: number;
  whole: number;
  label: string;
  tone?: string;
}) {
  const width = whole > 0 ? Math.max(0, Math.min(100, (100 * part) / whole)) : 0;
  return (
    <span className="block h-1.5 w-full bg-lilac" role="img" aria-label={label}>
      <span className={`block h-full ${tone}`} style={{ width: `${width}%` }} />
    </span>
  );
}

/** Words in place of a view that has nothing to show. */
export function Blank({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="mx-auto mt-24 max-w-md px-6">
      <h2 className="mb-2 text-lg">{title}</h2>
      <div className="text-soft">{children}</div>
    </div>
  );
}

/** Lines where figures will stand. */
export function Waiting({ what }: { what: string }) {
  return (
    <div className="p-7" role="status">
      <span className="text-soft">{what}</span>
      {[72, 64, 80, 56].map((width) => (
        <div key={width} className="mt-3 h-3 animate-pulse bg-lilac" style={{ width: `${width}%` }} />
      ))}
    </div>
  );
}
