// @vitest-environment happy-dom
import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import { serverWith, show } from "@/test/server";
import { MySecondFactor } from "./my-second-factor";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

test("the spare codes stay, though the form is gone as soon as it is known to be on", async () => {
  const state = { on: false };
  serverWith({
    "GET /api/me/second-factor": state,
    "POST /api/me/second-factor": { address: "otpauth://totp/Crelda:ben?secret=ABCDEFGH" },
    "POST /api/me/second-factor/confirm": { codes: ["one1", "two2", "three3"] },
  });
  show(<MySecondFactor />, {});
  await userEvent.click(await screen.findByRole("button", { name: "Ask for a code from my phone too" }));
  fireEvent.change(await screen.findByLabelText("The code that it shows then"), {
    target: { value: "123456" },
  });
  state.on = true;
  await userEvent.click(screen.getByRole("button", { name: "Turn it on" }));
  const codes = within(await screen.findByRole("list", { name: "Spare codes" }));
  expect(codes.getAllByRole("listitem")).toHaveLength(3);
  expect(await screen.findByRole("button", { name: "Turn it off" })).toBeTruthy();
  expect(codes.getAllByRole("listitem")).toHaveLength(3);
  await userEvent.click(screen.getByRole("button", { name: "I have them" }));
  expect(screen.queryByRole("list", { name: "Spare codes" })).toBeNull();
});
