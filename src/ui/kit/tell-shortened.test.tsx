// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { useTellShortened } from "./tell-shortened";

afterEach(cleanup);

function Names() {
  useTellShortened();
  return (
    <ul>
      <li style={{ textOverflow: "ellipsis" }}>Cello, wood and rosin</li>
      <li title="Version 3" style={{ textOverflow: "ellipsis" }}>
        Horn
      </li>
    </ul>
  );
}

const widths = (name: string, text: number) =>
  Object.defineProperties<HTMLElement>(screen.getByText(name), {
    scrollWidth: { value: text, configurable: true },
    clientWidth: { value: 100, configurable: true },
  });

it("tells a shortened text in full where the pointer rests, and no more once there is room; what is told already stays", () => {
  render(<Names />);
  const cello = widths("Cello, wood and rosin", 180);
  fireEvent.pointerOver(cello);
  expect(cello.title).toBe("Cello, wood and rosin");
  widths("Cello, wood and rosin", 90);
  fireEvent.pointerOver(cello);
  expect(cello.hasAttribute("title")).toBe(false);
  const horn = widths("Horn", 180);
  fireEvent.pointerOver(horn);
  expect(horn.title).toBe("Version 3");
});
