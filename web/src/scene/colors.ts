const NAMES = [
  "solid",
  "solid-bend",
  "accent",
  "ink",
  "paper",
  "soft",
  "line",
  "stop",
  "caution",
  "sheet",
  "well",
  "grid",
] as const;

export type Colors = Record<(typeof NAMES)[number], string>;

/** The page's colours as they are now, light or dark. */
export function readColors(): Colors {
  const style = getComputedStyle(document.documentElement);
  const read = Object.fromEntries(NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]));
  return read as Colors;
}
