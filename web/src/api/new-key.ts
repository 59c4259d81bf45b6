/** A random key (RFC 4122, version 4), also where the page is not served securely. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const hex = [...bytes].map((byte, at) => {
    const kept = at === 6 ? (byte & 0x0f) | 0x40 : at === 8 ? (byte & 0x3f) | 0x80 : byte;
    return kept.toString(16).padStart(2, "0");
  });
  return [hex.slice(0, 4), hex.slice(4, 6), hex.slice(6, 8), hex.slice(8, 10), hex.slice(10)]
    .map((part) => part.join(""))
    .join("-");
}
