const underWay = new Map<string, Promise<unknown>>();

/**
 * Does a task of this name once at a time: whoever asks in this window meanwhile gets what comes of it, and other windows
 * take their turn.
 */
export function onceAtATime<T>(name: string, task: () => Promise<T>): Promise<T> {
  const known = underWay.get(name) as Promise<T> | undefined;
  if (known) return known;
  const doing = (navigator.locks ? navigator.locks.request(`crelda ${name}`, task) : task()).finally(() =>
    underWay.delete(name),
  );
  underWay.set(name, doing);
  return doing as Promise<T>;
}
