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
  const boxes = [...within.querySelectorAll<HTMLElement>("[data-box]")];
  const here = boxes.findIndex((box) => box.contains(from));
  const next = boxes[here + 1];
  if (next) focusBox(next);
  else if (from instanceof HTMLInputElement) from.form?.requestSubmit();
}
