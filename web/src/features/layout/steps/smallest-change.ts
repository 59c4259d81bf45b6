/** Only what differs is replaced, so that the cursor stays where it was. */
export function smallestChange(before: string, after: string) {
  if (before === after) return null;
  let from = 0;
  while (from < before.length && before[from] === after[from]) from += 1;
  let end = 0;
  const most = Math.min(before.length, after.length) - from;
  while (end < most && before[before.length - 1 - end] === after[after.length - 1 - end]) end += 1;
  return { from, to: before.length - end, insert: after.slice(from, after.length - end) };
}
