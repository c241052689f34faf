// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { inPlaceKeys } from "./in-place";
import { useKeepFocus } from "./keep-focus";
import { Sheet } from "./sheet";

afterEach(cleanup);

/** A screen from which things go: a field after Enter, plugins one by one, a button that has nothing more to do, a sheet. */
function Screen() {
  useKeepFocus();
  const [typing, setTyping] = useState(false);
  const [plugins, setPlugins] = useState(["one", "two", "three"]);
  const [left, setLeft] = useState(1);
  const [sheet, setSheet] = useState(false);
  return (
    <main tabIndex={-1} onKeyDown={({ key }) => key === "?" && setSheet(true)}>
      <p>
        <button type="button">before</button>
        {typing ? (
          <input aria-label="value" onKeyDown={({ key }) => key === "Enter" && setTyping(false)} />
        ) : (
          <button type="button" onClick={() => setTyping(true)}>
            value
          </button>
        )}
      </p>
      <ul>
        {plugins.map((name) => (
          <li key={name}>
            <button type="button" onClick={() => setPlugins(plugins.filter((p) => p !== name))}>
              {name}
            </button>
          </li>
        ))}
      </ul>
      <p>
        <button type="button" disabled={left === 0} onClick={() => setLeft(0)}>
          undo
        </button>
        <button type="button">redo</button>
      </p>
      <input aria-label="name" defaultValue="Cello" onKeyDown={inPlaceKeys("Cello")} />
      <Sheet open={sheet} onClose={() => setSheet(false)} title="Shortcuts">
        <button type="button">in the sheet</button>
      </Sheet>
    </main>
  );
}

const button = (name: string) => screen.getByRole("button", { name });
const hasFocus = (element: Element) => waitFor(() => expect(document.activeElement).toBe(element));

function press(name: string) {
  button(name).focus();
  fireEvent.click(button(name));
}

describe("the focus", () => {
  it("is on the screen from the beginning", async () => {
    render(<Screen />);
    await hasFocus(screen.getByRole("main"));
  });

  it("goes to what takes the place of a field", async () => {
    render(<Screen />);
    press("value");
    screen.getByLabelText("value").focus();
    fireEvent.keyDown(screen.getByLabelText("value"), { key: "Enter" });
    await hasFocus(button("value"));
  });

  it("goes to the next of a row, to the one before where it was the last, and stays on the screen when all are gone", async () => {
    render(<Screen />);
    press("two");
    await hasFocus(button("three"));
    press("three");
    await hasFocus(button("one"));
    press("one");
    await waitFor(() => expect(screen.getByRole("main").contains(document.activeElement)).toBe(true));
  });

  it("leaves a button that has nothing more to do for its neighbour", async () => {
    render(<Screen />);
    press("undo");
    await hasFocus(button("redo"));
  });

  it("comes back from a sheet that a key opened", async () => {
    render(<Screen />);
    button("before").focus();
    fireEvent.keyDown(button("before"), { key: "?" });
    await hasFocus(button("in the sheet"));
    fireEvent.keyDown(button("in the sheet"), { key: "Escape" });
    await hasFocus(button("before"));
  });

  it("goes back from a name to where the hand was, with the name as it was after Escape", async () => {
    render(<Screen />);
    button("before").focus();
    const name = screen.getByLabelText<HTMLInputElement>("name");
    name.focus();
    fireEvent.change(name, { target: { value: "Harmonium" } });
    fireEvent.keyDown(name, { key: "Escape" });
    await hasFocus(button("before"));
    expect(name.value).toBe("Cello");
  });

  it("leaves what is there but not drawn, and goes to nothing of that kind", async () => {
    render(<Screen />);
    const [before, row] = [button("before"), button("one")];
    before.focus();
    // As the browser says of what waits for a part of the page that is on its way.
    const hidden = () => false;
    Object.assign(before, { checkVisibility: hidden });
    Object.assign(row, { checkVisibility: hidden });
    screen.getByRole("main").append(document.createElement("p"));
    await waitFor(() => expect(document.activeElement).not.toBe(before));
    expect(document.activeElement).not.toBe(document.body);
    expect(document.activeElement).not.toBe(row);
  });

  it("stays where it was when one presses beside everything", async () => {
    vi.spyOn(document, "hasFocus").mockReturnValue(true);
    render(<Screen />);
    button("before").focus();
    // As the browser does on what lies behind a sheet.
    button("before").blur();
    expect(document.activeElement).toBe(document.body);
    await hasFocus(button("before"));
  });
});

describe("another screen in the place of one", () => {
  function Screens() {
    useKeepFocus();
    const [other, setOther] = useState(false);
    return (
      <main tabIndex={-1}>
        {other ? (
          <section key="other">
            <button type="button">New</button>
          </section>
        ) : (
          <section key="one">
            <button type="button" onClick={() => setOther(true)}>
              there
            </button>
          </section>
        )}
      </main>
    );
  }

  it("has the focus as a whole: none of its buttons is what the hand was on", async () => {
    render(<Screens />);
    press("there");
    await hasFocus(screen.getByRole("main"));
  });
});
