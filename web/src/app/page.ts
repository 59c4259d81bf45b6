import { type ComponentType, lazy } from "react";
import { matchPath } from "react-router";

/** A page that is fetched when it is opened; the one that the address asks for at once, while it is asked who is there. */
export function page(at: string, load: () => Promise<ComponentType>) {
  const asked = matchPath(at, window.location.pathname) ? load() : null;
  // Where that failed it is asked for again, and told then.
  asked?.catch(() => undefined);
  return lazy(async () => ({ default: await (asked?.catch(load) ?? load()) }));
}
