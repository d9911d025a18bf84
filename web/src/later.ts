// What the first page does not need comes when it is opened, or a little later by itself.
import { lazyRouteComponent } from "@tanstack/react-router";

const all: { preload?: () => Promise<void> | undefined }[] = [];

/** A component of a module that is not fetched with the first page. */
export const later: typeof lazyRouteComponent = (load, name) => {
  const component = lazyRouteComponent(load, name);
  all.push(component);
  return component;
};

/** Fetches all of it before anybody opens it, so that nothing is waited for. */
export function fetchLater() {
  for (const component of all) void component.preload?.();
}
