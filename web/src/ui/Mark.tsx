// How far something is, by shape and word: an open ring, a half one, a full one, a tick.

export type Far = "empty" | "begun" | "complete" | "checked";

export const FAR: Record<Far, string> = {
  empty: "empty",
  begun: "begun",
  complete: "complete",
  checked: "checked",
};

export function Mark({ far, of }: { far: Far; of: string }) {
  return (
    <svg
      viewBox="0 0 12 12"
      className="inline-block size-[11px] shrink-0 text-petrol"
      role="img"
      aria-label={`${of}: ${FAR[far]}`}
    >
      <title>{FAR[far]}</title>
      {far === "checked" ? (
        <path d="M1.5 6.5 4.7 9.7 10.5 2.5" fill="none" stroke="currentColor" strokeWidth="1.8" />
      ) : (
        <>
          <circle cx="6" cy="6" r="4.2" fill="none" stroke="currentColor" strokeWidth="1.3" />
          {far === "begun" && <path d="M6 1.8a4.2 4.2 0 0 0 0 8.4z" fill="currentColor" />}
          {far === "complete" && <circle cx="6" cy="6" r="4.2" fill="currentColor" />}
        </>
      )}
    </svg>
  );
}
