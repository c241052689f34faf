// @vitest-environment jsdom
import { act, cleanup, createEvent, fireEvent, render, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { AddPlugin } from "../bench/chain/add-plugin";
import { type Action, useActionKeys, useActions, useEnabledActions, useKeyUses } from "./actions";

const done: string[] = [];

const doing = (id: string, keys: readonly string[], more: Partial<Action> = {}): Action => ({
  id,
  title: `Do ${id}`,
  group: "Test",
  keys,
  run: () => done.push(id),
  ...more,
});

interface ScreenProps {
  readonly actions: readonly Action[];
  readonly where?: "screen" | "everywhere";
}

function Screen({ actions, where }: ScreenProps) {
  useActions(actions, where);
  return null;
}

function Keys() {
  useActionKeys();
  return (
    <>
      <input aria-label="field" />
      <button type="button">button</button>
      <button type="button">next</button>
      <select aria-label="choices">
        <option>a</option>
        <option>b</option>
      </select>
      <span data-node tabIndex={0}>
        tile
      </span>
    </>
  );
}

/** `at`: when it was pressed, in milliseconds; it is read now. */
function press(
  key: string,
  { at = performance.now(), ...held }: Partial<KeyboardEventInit> & { at?: number } = {},
  on: Element = document.body,
): void {
  const event = createEvent.keyDown(on, { key, ...held });
  Object.defineProperty(event, "timeStamp", { value: at });
  act(() => void fireEvent(on, event));
}

const show = (...screens: readonly (readonly Action[])[]) =>
  render(
    <>
      <Keys />
      {screens.map((actions, at) => (
        <Screen key={at} actions={actions} />
      ))}
    </>,
  );

beforeEach(() => {
  done.length = 0;
  vi.useFakeTimers();
});

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

describe("a key", () => {
  it("does what the newest screen has it for", () => {
    const { unmount } = show([doing("below", ["B"])], [doing("above", ["B"])]);
    press("b");
    expect(done).toEqual(["above"]);
    unmount();
    press("b");
    expect(done).toEqual(["above"]);
  });

  it("is the screen's before it is for what stands around every screen, whichever came first", () => {
    const around = <Screen actions={[doing("around", ["B"])]} where="everywhere" />;
    const screen = <Screen actions={[doing("screen", ["B"])]} />;
    const { rerender } = render(
      <>
        <Keys />
        {screen}
        <div key="around">{around}</div>
      </>,
    );
    press("b");
    rerender(
      <>
        <Keys />
        <div key="around">{around}</div>
      </>,
    );
    press("b");
    rerender(
      <>
        <Keys />
        <div key="around">{around}</div>
        <div key="later">{screen}</div>
      </>,
    );
    press("b");
    expect(done).toEqual(["screen", "around", "screen"]);
  });

  it("does nothing while what has it cannot be done, and nothing else in its place", () => {
    show([doing("below", ["B"])], [doing("above", ["B"], { enabled: false })]);
    press("b");
    expect(done).toEqual([]);
  });

  it("does what it is for by now, when the screen has changed", () => {
    const { rerender } = render(
      <>
        <Keys />
        <Screen actions={[doing("first", ["B"])]} />
      </>,
    );
    rerender(
      <>
        <Keys />
        <Screen actions={[{ ...doing("first", ["B"]), run: () => done.push("second") }]} />
      </>,
    );
    press("b");
    expect(done).toEqual(["second"]);
  });

  it("belongs to a field while one types in it, but for those with Control", () => {
    const { getByLabelText } = show([doing("letter", ["B"]), doing("save", ["Ctrl+S"]), doing("all", ["Ctrl+A"])]);
    const field = getByLabelText("field");
    press("b", {}, field);
    press("a", { ctrlKey: true }, field);
    expect(done).toEqual([]);
    press("s", { ctrlKey: true }, field);
    expect(done).toEqual(["save"]);
  });

  it("belongs to a button that it would press; on a tile Space plays", () => {
    const { getByText } = show([doing("play", ["Space"]), doing("apply", ["Enter"]), doing("letter", ["B"])]);
    press(" ", {}, getByText("button"));
    press("Enter", {}, getByText("button"));
    expect(done).toEqual([]);
    press("b", {}, getByText("button"));
    press(" ", {}, getByText("tile"));
    expect(done).toEqual(["letter", "play"]);
  });

  it("Space plays on what the pointer pressed, also on what took its place, and presses what was reached by Tab", () => {
    const { getByText, getAllByText } = show([doing("play", ["Space"])]);
    const [first] = getAllByText("button");
    const focus = (element: Element | undefined) => act(() => (element as HTMLElement).focus());
    act(() => void fireEvent.pointerDown(first as Element));
    focus(first);
    press(" ", {}, first);
    expect(done).toEqual(["play"]);
    focus(getByText("next"));
    press(" ", {}, getByText("next"));
    expect(done).toEqual(["play", "play"]);
    press("Tab", {}, getByText("next"));
    focus(first);
    press(" ", {}, first);
    expect(done).toEqual(["play", "play"]);
    // Back from a sheet that the button opened it is still what Tab reached.
    press("Escape", {}, first);
    focus(getByText("next"));
    focus(first);
    press(" ", {}, first);
    expect(done).toEqual(["play", "play"]);
  });

  it("Space plays on what the pointer opened a menu with, and opens what was reached by Tab", () => {
    show([doing("play", ["Space"])]);
    const { getByRole } = render(<AddPlugin onAdd={() => {}} />);
    const menu = () => document.querySelector("[role=menu]");
    const trigger = getByRole("button", { name: "Add plugin" });
    act(() => void fireEvent.pointerDown(trigger, { button: 0, ctrlKey: false }));
    expect(menu()).not.toBeNull();
    press("Escape", {}, menu()!);
    act(() => trigger.focus());
    press(" ", {}, trigger);
    expect([menu(), done]).toEqual([null, ["play"]]);
    press("Tab", {}, document.body);
    act(() => trigger.blur());
    act(() => trigger.focus());
    press(" ", {}, trigger);
    expect(menu()).not.toBeNull();
    expect(done).toEqual(["play"]);
  });

  it("a list of choices that the pointer was used on gives the hand back", () => {
    const { getByText, getByLabelText } = show([]);
    act(() => getByText("tile").focus());
    act(() => void fireEvent.pointerDown(getByLabelText("choices")));
    act(() => getByLabelText("choices").focus());
    act(() => void fireEvent.change(getByLabelText("choices"), { target: { value: "b" } }));
    expect(document.activeElement).toBe(getByText("tile"));
    press("Tab");
    act(() => getByLabelText("choices").focus());
    act(() => void fireEvent.change(getByLabelText("choices"), { target: { value: "a" } }));
    expect(document.activeElement).toBe(getByLabelText("choices"));
  });

  it("does nothing while a menu is open", () => {
    show([doing("delete", ["Delete"]), doing("play", ["Space"]), doing("undo", ["Ctrl+Z"])]);
    const menu = document.createElement("div");
    menu.setAttribute("role", "menu");
    document.body.append(menu);
    press("Delete", {}, menu);
    press(" ", {}, menu);
    press("z", { ctrlKey: true }, menu);
    expect(done).toEqual([]);
    menu.remove();
    press("Delete");
    expect(done).toEqual(["delete"]);
  });

  it("does nothing below a sheet, but for what is heard", () => {
    show([doing("delete", ["Delete"]), doing("play", ["Space"])]);
    const sheet = document.createElement("div");
    sheet.setAttribute("role", "dialog");
    document.body.append(sheet);
    press("Delete");
    press(" ");
    expect(done).toEqual(["play"]);
    sheet.remove();
    press("Delete");
    expect(done).toEqual(["play", "delete"]);
  });

  it("that a control has taken, or that is part of a letter being composed, is left alone", () => {
    show([doing("letter", ["B"])]);
    const taken = new KeyboardEvent("keydown", { key: "b", bubbles: true, cancelable: true });
    taken.preventDefault();
    act(() => void document.body.dispatchEvent(taken));
    press("b", { isComposing: true });
    expect(done).toEqual([]);
  });
});

describe("two keys one after the other", () => {
  const PAIR = doing("pair", ["Q V"]);

  it("do what they are for", () => {
    show([PAIR, doing("alone", ["V"])]);
    press("q");
    expect(done).toEqual([]);
    press("v");
    expect(done).toEqual(["pair"]);
  });

  it("are a key by itself where the second comes too late", () => {
    show([PAIR, doing("alone", ["V"])]);
    press("q");
    vi.advanceTimersByTime(2000);
    press("v");
    expect(done).toEqual(["alone"]);
  });

  it("count from when they were pressed, however late the page comes to read them", () => {
    show([PAIR, doing("alone", ["V"])]);
    const at = performance.now();
    press("q", { at });
    vi.advanceTimersByTime(5000);
    press("v", { at: at + 200 });
    expect(done).toEqual(["pair"]);
  });

  it("are a key by itself where the second is another", () => {
    show([PAIR, doing("other", ["X"])]);
    press("q");
    press("x");
    press("v");
    expect(done).toEqual(["other"]);
  });

  it("wait for no modifier: Shift between them changes nothing", () => {
    show([doing("pair", ["Q Shift+V"])]);
    press("q");
    press("Shift", { shiftKey: true });
    press("V", { shiftKey: true });
    expect(done).toEqual(["pair"]);
  });

  it("leave a key that does something by itself to that", () => {
    show([PAIR, doing("alone", ["Q"])]);
    press("q");
    expect(done).toEqual(["alone"]);
  });
});

describe("the list of what can be done", () => {
  it("has each once, the newest first, without what cannot be done now", () => {
    const { result } = renderHook(() => {
      useActions([doing("a", ["A"]), doing("off", ["O"], { enabled: false })]);
      useActions([doing("a", ["X"], { title: "Newer" }), doing("b", [])]);
      return { actions: useEnabledActions(), keys: useKeyUses() };
    });
    expect(result.current.actions.map((a) => a.title)).toEqual(["Newer", "Do b"]);
    expect(result.current.keys).toEqual([{ keys: "X", title: "Newer", id: "a" }]);
  });
});
