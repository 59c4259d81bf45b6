// @vitest-environment happy-dom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import { Refuse, serverWith, show } from "@/test/server";
import { Forgotten } from "./forgotten";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const open = () => userEvent.click(screen.getByRole("button", { name: "Forgot the password?" }));
const send = () => screen.getByRole("button", { name: "Send me a link by mail" }) as HTMLButtonElement;

test("without a mail server the lead is who helps", async () => {
  show(<Forgotten knownAs="ben" mail={false} />, {});
  await open();
  expect(screen.getByText(/Your crew’s lead makes a link/)).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});

test("with one a link is sent to whom the name is typed of, and nothing is told of whether it is known", async () => {
  const asked = serverWith({ "POST /api/password-links": {} });
  show(<Forgotten knownAs=" " mail />, {});
  await open();
  expect(send().disabled).toBe(true);
  cleanup();
  show(<Forgotten knownAs="ben" mail />, {});
  await open();
  await userEvent.click(send());
  expect(await screen.findByText(/If that name has an e-mail address here/)).toBeTruthy();
  expect(asked.map((one) => one.body)).toEqual([{ known_as: "ben" }]);
});

test("what the server says against it is told, and it can be sent again", async () => {
  serverWith({ "POST /api/password-links": new Refuse(503, { status: 503, detail: "Not just now." }) });
  show(<Forgotten knownAs="ben" mail />, {});
  await open();
  await userEvent.click(send());
  expect(await screen.findByText("Not just now.")).toBeTruthy();
  expect(send().disabled).toBe(false);
});
