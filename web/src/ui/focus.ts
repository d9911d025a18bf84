/** A ref for the box that someone just asked for. */
export function focusAtOnce(box: HTMLInputElement | null) {
  if (box && document.activeElement !== box && !box.dataset.focused) {
    box.dataset.focused = "true";
    box.focus();
  }
}
