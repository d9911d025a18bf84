// The kinds of papers that were added last on this machine, by country: they come first when a paper is added.
const KEPT = 5;

const key = (country: string) => `hembo.recent.${country}`;

export function recentKinds(country: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key(country)) ?? "[]");
    return Array.isArray(kept) ? kept.filter((id) => typeof id === "string") : [];
  } catch {
    return [];
  }
}

export function keepRecent(country: string, kind: string) {
  const kinds = [kind, ...recentKinds(country).filter((id) => id !== kind)];
  localStorage.setItem(key(country), JSON.stringify(kinds.slice(0, KEPT)));
}
