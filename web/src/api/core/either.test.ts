// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { server } from "../reachable";
import { either, type Here } from "./either";

const HERE = { found: true, text: '"here"' };
const asked = (path = "/api/plan?of_run=7") =>
  new Request(`http://crelda.test${path}`, { method: "POST", body: '{"document":{}}' });
const answers = (status = 200) => vi.fn(() => Promise.resolve(new Response('"there"', { status })));
const never = () => new Promise<Response>(() => undefined);
const said = async (answer: Promise<Response>) => (await answer).json();

const device = (than: Partial<Here> = {}) => ({
  isHere: () => true,
  limits: async () => "{}",
  ask: vi.fn(async () => HERE),
  ...than,
});

beforeEach(() => {
  server.change("answers");
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
  server.change("answers");
});

test("the server answers in time, and nobody else is asked", async () => {
  const here = device();
  expect(await said(either(asked(), answers(), here))).toBe("there");
  await vi.runAllTimersAsync();
  expect(here.ask).not.toHaveBeenCalled();
});

test("a server that takes too long is not waited for", async () => {
  const here = device();
  const told = said(either(asked(), never, here));
  await vi.runAllTimersAsync();
  expect(await told).toBe("here");
  expect(here.ask).toHaveBeenCalledWith(
    expect.objectContaining({ question: "plan", given: '{"document":{}}', limits: "{}" }),
  );
});

test("where no answer comes, or none of the server's own, it is answered here at once", async () => {
  const gone = () => Promise.reject(new TypeError("no network"));
  expect(await said(either(asked(), gone, device()))).toBe("here");
  expect(await said(either(asked(), answers(503), device()))).toBe("here");
});

test("what the server refuses is refused", async () => {
  const here = device();
  expect((await either(asked(), answers(422), here)).status).toBe(422);
  expect(here.ask).not.toHaveBeenCalled();
});

test("a server that is away is not asked", async () => {
  server.change("away");
  const fetched = answers();
  expect(await said(either(asked("/api/note/read"), fetched, device()))).toBe("here");
  expect(fetched).not.toHaveBeenCalled();
});

test("what the core refuses is refused as the server would", async () => {
  const refusal = { found: false, text: '{"detail":"no","places":{}}' };
  server.change("away");
  const answer = await either(asked(), answers(), device({ ask: async () => refusal }));
  expect(answer.status).toBe(422);
  expect(await answer.json()).toEqual({ detail: "no", places: {} });
});

test("without the core, without limits, or where it does not run, it is the server's to say", async () => {
  server.change("away");
  const broken = () => Promise.reject(new Error("it did not begin"));
  for (const than of [{ limits: async () => undefined }, { ask: broken }, { isHere: () => false }])
    expect(await said(either(asked(), answers(), device(than)))).toBe("there");
});

test("what writes is never answered here", async () => {
  server.change("away");
  const here = device();
  expect(await said(either(asked("/api/runs/7/bench"), answers(), here))).toBe("there");
  expect(here.ask).not.toHaveBeenCalled();
});
