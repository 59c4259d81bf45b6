// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { server } from "../reachable";
import { askCore } from "./asking";
import { either } from "./either";
import { core } from "./keeping";
import { limitsOf } from "./limits";

vi.mock("./asking", () => ({ askCore: vi.fn(), quick: { begin: vi.fn() } }));
vi.mock("./limits", () => ({ limitsOf: vi.fn(), refreshLimits: vi.fn(() => Promise.resolve()) }));

const HERE = { found: true, text: '"here"' };
const asked = (path = "/api/plan?of_run=7") =>
  new Request(`http://crelda.test${path}`, { method: "POST", body: '{"document":{}}' });
const answers = (status = 200) => vi.fn(() => Promise.resolve(new Response('"there"', { status })));
const never = () => new Promise<Response>(() => undefined);
const said = async (answer: Promise<Response>) => (await answer).json();

beforeEach(() => {
  vi.useFakeTimers();
  core.change({ state: "here" });
  server.change("answers");
  vi.mocked(askCore).mockReset().mockResolvedValue(HERE);
  vi.mocked(limitsOf).mockReset().mockReturnValue("{}");
});
afterEach(() => void vi.useRealTimers());

test("the server answers in time, and nobody else is asked", async () => {
  const fetched = answers();
  expect(await said(either(asked(), fetched))).toBe("there");
  await vi.runAllTimersAsync();
  expect(askCore).not.toHaveBeenCalled();
});

test("a server that takes too long is not waited for", async () => {
  const told = said(either(asked(), never));
  await vi.runAllTimersAsync();
  expect(await told).toBe("here");
  expect(askCore).toHaveBeenCalledWith(
    expect.objectContaining({ question: "plan", given: '{"document":{}}', limits: "{}" }),
  );
});

test("where no answer comes, or none of the server's own, it is answered here at once", async () => {
  expect(await said(either(asked(), () => Promise.reject(new TypeError("no network"))))).toBe("here");
  expect(await said(either(asked(), answers(503)))).toBe("here");
});

test("what the server refuses is refused", async () => {
  expect((await either(asked(), answers(422))).status).toBe(422);
  expect(askCore).not.toHaveBeenCalled();
});

test("a server that is away is not asked", async () => {
  server.change("away");
  const fetched = answers();
  expect(await said(either(asked("/api/note/read"), fetched))).toBe("here");
  expect(fetched).not.toHaveBeenCalled();
});

test("what the core refuses is refused as the server would", async () => {
  vi.mocked(askCore).mockResolvedValue({ found: false, text: '{"detail":"no","places":{}}' });
  server.change("away");
  const answer = await either(asked(), answers());
  expect(answer.status).toBe(422);
  expect(await answer.json()).toEqual({ detail: "no", places: {} });
});

test("without the core, without limits, or where it does not run, it is the server's to say", async () => {
  server.change("away");
  vi.mocked(limitsOf).mockReturnValue(undefined);
  expect(await said(either(asked(), answers()))).toBe("there");
  vi.mocked(limitsOf).mockReturnValue("{}");
  vi.mocked(askCore).mockRejectedValue(new Error("it did not begin"));
  expect(await said(either(asked(), answers()))).toBe("there");
  core.change({ state: "none" });
  vi.mocked(askCore).mockReset();
  expect(await said(either(asked(), answers()))).toBe("there");
  expect(askCore).not.toHaveBeenCalled();
});

test("what writes is never answered here", async () => {
  server.change("away");
  const fetched = answers();
  expect(await said(either(asked("/api/runs/7/bench"), fetched))).toBe("there");
  expect(askCore).not.toHaveBeenCalled();
});
