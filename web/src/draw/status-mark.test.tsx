// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { StatusMark } from "./status-mark";

afterEach(cleanup);

test("the stage that is true of all of it, and in words what is begun beyond", () => {
  const begun = [
    { what: "cut" as const, done: 1, of: 2 },
    { what: "bends" as const, done: 3, of: 4 },
  ];
  const { container } = render(<StatusMark status="laid out" begun={begun} />);
  expect(screen.getByText("laid out")).toBeTruthy();
  expect(screen.getByText("1 of 2 cut, 3 of 4 bends")).toBeTruthy();
  const reached = [...container.querySelectorAll("rect")].filter(
    (one) => one.getAttribute("fill") === "var(--accent)",
  );
  expect(reached).toHaveLength(2);
});
