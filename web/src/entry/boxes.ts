// The boxes of a view in their order on the page.

/** Focuses a box where Tab would stop. */
export function focusBox(box: HTMLElement) {
  const stops = "input, button, [tabindex='0']";
  const stop = box.matches(stops) ? box : box.querySelector<HTMLElement>(stops);
  stop?.focus();
}

/** Enter goes on to the next box, as Tab does. */
export function toNextBox(from: HTMLElement) {
  const within = from.closest("[role=dialog]") ?? document;
  const all = [...within.querySelectorAll<HTMLElement>("[data-box]")];
  // What is folded away is no next box.
  const boxes = all.filter((box) => box.contains(from) || box.checkVisibility());
  const here = boxes.findIndex((box) => box.contains(from));
  const next = boxes[here + 1];
  if (next) focusBox(next);
  else if (from instanceof HTMLInputElement) from.form?.requestSubmit();
}

/** Enter in a plain box of a form goes on as well: the form is sent from its last box, or by its button. */
export function enterGoesOn(event: React.KeyboardEvent<HTMLInputElement>) {
  if (event.key !== "Enter" || event.defaultPrevented) return;
  event.preventDefault();
  toNextBox(event.currentTarget);
}
