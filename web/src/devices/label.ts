/** A label of 50 × 25 mm: the first line large; a long line is smaller, so that it fits. Sizes in mm. */
const WIDTH = 50;
const HEIGHT = 25;
const EDGE = 3;
const LARGE = 7;
const USUAL = 4;
// A letter of most fonts is no wider than so much of its size.
const LETTER = 0.62;

const ESCAPED: Record<string, string> = { "<": "&lt;", ">": "&gt;", "&": "&amp;" };
const escaped = (text: string) => text.replace(/[<>&]/g, (sign) => ESCAPED[sign] ?? sign);

function sizeOf(line: string, isFirst: boolean): number {
  const fitting = (WIDTH - 2 * EDGE) / (LETTER * Math.max(1, line.length));
  return Math.round(Math.min(isFirst ? LARGE : USUAL, fitting) * 100) / 100;
}

/** A label as the file that a printer takes (SVG). */
export function labelFile(lines: string[]): string {
  const texts = lines.map(
    (line, at) =>
      `<text x="${EDGE}" y="${8 + 4.7 * at}" font-size="${sizeOf(line, at === 0)}">${escaped(line)}</text>`,
  );
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}mm" height="${HEIGHT}mm" viewBox="0 0 ${WIDTH} ${HEIGHT}" ` +
    `font-family="sans-serif"><rect width="${WIDTH}" height="${HEIGHT}" rx="2" fill="#fff" stroke="#000" ` +
    `stroke-width="0.3"/>${texts.join("")}</svg>`
  );
}
