/** The core's files on this device. They are of this build, and there is no use for some of them. */

const STORE = "crelda-core";
const FILES = __CORE__.files;

const urlOf = (name: string) => `${__CORE__.folder}${name}`;

/** So many bytes are sent for it. */
export const TO_FETCH = FILES.reduce((sum, file) => sum + file.sent, 0);

/** Whether this browser can keep files and run them: it keeps none for a page that is not served securely. */
export const canKeep = (): boolean => "caches" in window && typeof WebAssembly === "object";

/** Whether all of this build's files are here. */
export async function allHere(): Promise<boolean> {
  if (!canKeep()) return false;
  const store = await caches.open(STORE);
  const found = await Promise.all(FILES.map(({ name }) => store.match(urlOf(name))));
  return found.every(Boolean);
}

/**
 * Fetches what is missing, telling how many bytes are here, as they are sent. Those of an earlier build stay until all
 * of this one's are there. Rejects where one cannot be had or kept.
 */
export async function fetchAll(tell: (bytes: number) => void): Promise<void> {
  const store = await caches.open(STORE);
  let before = 0;
  for (const { name, bytes, sent } of FILES) {
    const url = urlOf(name);
    if (!(await store.match(url))) {
      const content = await fetched(url, (got) => tell(before + (sent * got) / bytes));
      await store.put(url, new Response(content, { headers: { "Content-Type": typeOf(name) } }));
    }
    before += sent;
    tell(before);
  }
  const mine = new Set(FILES.map(({ name }) => new URL(urlOf(name), window.location.origin).href));
  for (const request of await store.keys()) if (!mine.has(request.url)) await store.delete(request);
}

export const removeAll = (): Promise<boolean> => caches.delete(STORE);

async function fetched(url: string, tell: (bytes: number) => void): Promise<Blob> {
  const answer = await fetch(url);
  const reader = answer.ok ? answer.body?.getReader() : undefined;
  if (!reader) throw new Error(`${url}: ${answer.status}`);
  const parts: BlobPart[] = [];
  let got = 0;
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    parts.push(part.value);
    got += part.value.byteLength;
    tell(got);
  }
  return new Blob(parts);
}

const TYPES: Record<string, string> = {
  mjs: "text/javascript",
  wasm: "application/wasm",
  json: "application/json",
};

const typeOf = (name: string): string => TYPES[name.split(".").pop() ?? ""] ?? "application/octet-stream";
