// @vitest-environment jsdom
import { act, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { KEYS } from "@/clients/events";
import type { Project } from "@/core/projects/project";
import type { Step } from "@/core/recall/steps";
import { loadDemo } from "@/demo/load";
import { patiently, value } from "@/server/testing";
import { changeProject } from "@/server/use-cases/projects/change";
import { getProject } from "@/server/use-cases/projects/read";
import { useProjectEditing } from "./editing";
import { mintKey } from "../kit/mint";
import { type OpenProject, useOpenProject } from "./open-project";
import { bring, isKnown } from "./sending";

vi.mock("../kit/say", () => import("@/app/testing/said"));

const ID = "salt-lanterns";
const STRIP = "cello";

let house: House;

beforeEach(async () => {
  said.length = 0;
  house = await openHouse(loadDemo);
});

afterEach(() => house.close());

const open = async () => {
  const hook = renderHook(() => useProjectEditing(ID), { wrapper: house.wrapper });
  await waitFor(() => expect(hook.result.current.body).toBeDefined());
  return hook.result;
};
const stored = async () => value(await getProject(house.context, ID));
const nameOf = (project: Project) => project.strips.find((s) => s.id === STRIP)!.look.name;

const shows = (open: { readonly current: OpenProject }, name: string) =>
  waitFor(() => expect(nameOf(open.current.body!.project)).toBe(name));

/** Calls the cello otherwise, whatever it is called now. */
const rename =
  (to: string) =>
  ({ strips }: Project): readonly Step[] => {
    const { look } = strips.find((s) => s.id === STRIP)!;
    return [
      {
        id: mintKey(),
        strip: STRIP,
        part: "look",
        kind: "setPart",
        from: look,
        to: { ...look, name: to },
      },
    ];
  };

describe("a gesture", () => {
  it("is shown at once, and kept", async () => {
    const editing = await open();
    const { fetch } = globalThis;
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (letGo = resolve));
    globalThis.fetch = async (input, init) => {
      await held;
      return fetch(input, init);
    };
    let done: Promise<number | null> = Promise.resolve(null);
    act(() => void (done = editing.current.commit("Rename", rename("Cello, low"))));
    await shows(editing, "Cello, low");
    expect(nameOf((await stored()).project)).not.toBe("Cello, low");
    letGo();
    expect(await act(() => done)).toBe((await stored()).revision);
    globalThis.fetch = fetch;
    expect(nameOf((await stored()).project)).toBe("Cello, low");
    await waitFor(async () => expect(editing.current.body).toEqual(await stored()));
    expect(editing.current.body!.history.undo).toBe("Rename (Cello, low)");
  });

  it("of nothing is not sent", async () => {
    const editing = await open();
    expect(await act(() => editing.current.commit("Nothing", () => []))).toBeNull();
    expect(house.asked.filter((a) => a.startsWith("POST"))).toEqual([]);
  });

  it("builds on the one before, which is still on its way; all are kept, in order", async () => {
    const editing = await open();
    const { revision } = editing.current.body!;
    const names = ["Cello 1", "Cello 2", "Cello 3", "Cello 4"];
    const all: Promise<number | null>[] = [];
    act(() => {
      for (const name of names) all.push(editing.current.commit(`Call it ${name}`, rename(name)));
    });
    await shows(editing, "Cello 4");
    expect(await act(() => Promise.all(all))).toEqual([1, 2, 3, 4].map((n) => revision + n));
    const after = await stored();
    expect(after.revision).toBe(revision + 4);
    for (const name of ["Cello 3", "Cello 2", "Cello 1"]) {
      await act(() => editing.current.undo());
      await shows(editing, name);
    }
    await act(() => editing.current.redo());
    expect(nameOf((await stored()).project)).toBe("Cello 2");
  });

  it("still in line when the page is left is told at once, on what those before it will have made; all are kept", async () => {
    const editing = await open();
    const { revision } = editing.current.body!;
    const { fetch } = globalThis;
    const outliving: unknown[] = [];
    const sent: string[] = [];
    let leave = () => {};
    const left = new Promise<void>((resolve) => (leave = resolve));
    // Nothing is answered before the page is left, and what was told last comes first then.
    globalThis.fetch = async (input, init) => {
      if (init?.method !== "POST") return fetch(input, init);
      outliving.push(init.keepalive);
      const behind = sent.push(init.body as string);
      await left;
      await new Promise((later) => setTimeout(later, (4 - behind) * 20));
      return fetch(input, init);
    };
    const all: Promise<number | null>[] = [];
    act(() => {
      for (const name of ["Cello 1", "Cello 2"]) all.push(editing.current.commit(`Call it ${name}`, rename(name)));
      all.push(editing.current.commit("Call it Cello 3", rename("Cello 3")));
    });
    await waitFor(() => expect(sent).toHaveLength(1));
    act(() => void window.dispatchEvent(new Event("pagehide")));
    expect(sent.map((body) => (JSON.parse(body) as { baseRevision: number }).baseRevision - revision)).toEqual([
      0, 1, 2,
    ]);
    // What is done on the way out goes the same way.
    act(() => void all.push(editing.current.commit("Call it Cello 4", rename("Cello 4"))));
    expect(outliving).toEqual([true, true, true, true]);
    leave();
    expect(await act(() => Promise.all(all))).toEqual([1, 2, 3, 4].map((n) => revision + n));
    globalThis.fetch = fetch;
    const after = await stored();
    expect([after.revision, nameOf(after.project)]).toEqual([revision + 4, "Cello 4"]);
    // Shown again as it was left, it goes on as before.
    act(() => void window.dispatchEvent(new Event("pageshow")));
    expect(await act(() => editing.current.commit("Call it Cello 5", rename("Cello 5")))).toBe(revision + 5);
    expect(said).toEqual([]);
  });

  it("that another window was before is taken back on the screen, and said", async () => {
    const editing = await open();
    const { revision, project } = editing.current.body!;
    value(
      await changeProject(house.context, ID, {
        baseRevision: revision,
        label: "Theirs",
        steps: [...rename("Theirs")(project)],
      }),
    );
    expect(await act(() => editing.current.commit("Mine", rename("Mine")))).toBeNull();
    expect(said).toHaveLength(1);
    await shows(editing, "Theirs");
    expect(nameOf((await stored()).project)).toBe("Theirs");
    // The next one knows.
    expect(await act(() => editing.current.commit("Mine", rename("Mine")))).not.toBeNull();
    expect(nameOf((await stored()).project)).toBe("Mine");
  });

  it("that finds gone what it was meant for is not sent, and said", async () => {
    const editing = await open();
    const steps = rename("Cello, lower")(editing.current.body!.project);
    await act(() => editing.current.commit("Rename", rename("Cello, low")));
    const sent = house.asked.length;
    expect(await act(() => editing.current.commit("From there", () => steps))).toBeNull();
    expect(said.at(-1)).toContain("has changed since");
    expect(house.asked.slice(sent).filter((asked) => asked.startsWith("POST"))).toEqual([]);
  });

  it("behind one that is refused is made anew on what is there, and kept", async () => {
    const editing = await open();
    const { revision, project } = editing.current.body!;
    const theirs = { baseRevision: revision, label: "Theirs", steps: [...rename("Theirs")(project)] };
    value(await changeProject(house.context, ID, theirs));
    const done = await act(() =>
      Promise.all(["1", "2", "3"].map((n) => editing.current.commit(`Call it ${n}`, rename(`Cello ${n}`)))),
    );
    expect(done).toEqual([null, revision + 2, revision + 3]);
    expect(said).toHaveLength(1);
    await shows(editing, "Cello 3");
    await waitFor(async () => expect(editing.current.body).toEqual(await stored()));
  });

  it("stays on the screen when the project is fetched or opened anew meanwhile", async () => {
    const editing = await open();
    const before = editing.current.body!;
    const { fetch } = globalThis;
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (letGo = resolve));
    globalThis.fetch = async (input, init) => {
      if (init?.method === "POST") await held;
      return fetch(input, init);
    };
    let done: Promise<number | null> = Promise.resolve(null);
    act(() => void (done = editing.current.commit("Rename", rename("Cello, low"))));
    await act(() => house.queries.refetchQueries({ queryKey: KEYS.project(ID) }));
    act(() => bring(house.queries, before));
    expect(nameOf(editing.current.body!.project)).toBe("Cello, low");
    letGo();
    expect(await act(() => done)).not.toBeNull();
    globalThis.fetch = fetch;
    await waitFor(async () => expect(editing.current.body).toEqual(await stored()));
  });

  it("that does not meet what another window did before stands with that, and nothing is said", async () => {
    const editing = await open();
    const { revision, project } = editing.current.body!;
    const theirs = { baseRevision: revision, label: "Theirs", steps: [...rename("Theirs")(project)] };
    value(await changeProject(house.context, ID, theirs));
    const faster = (now: Project): readonly Step[] => [
      { id: mintKey(), kind: "setDetail", detail: "tempo", from: now.tempo, to: now.tempo + 1 },
    ];
    const done = await act(() =>
      Promise.all([editing.current.commit("Faster", faster), editing.current.commit("Faster", faster)]),
    );
    expect(done).toEqual([revision + 2, revision + 3]);
    expect(said).toEqual([]);
    await shows(editing, "Theirs");
    expect(editing.current.body!.project.tempo).toBe(project.tempo + 2);
    await waitFor(async () => expect(editing.current.body).toEqual(await stored()));
  });

  it("that cannot be sent is taken back on the screen, and said", async () => {
    const editing = await open();
    const before = nameOf(editing.current.body!.project);
    const { fetch } = globalThis;
    globalThis.fetch = (input, init) =>
      init?.method === "POST" ? Promise.reject(new TypeError("no network")) : fetch(input, init);
    expect(await act(() => editing.current.commit("Mine", rename("Mine")))).toBeNull();
    globalThis.fetch = fetch;
    expect(said.at(-1)).toContain("does not answer");
    await shows(editing, before);
    expect(await act(() => editing.current.commit("Mine", rename("Mine")))).not.toBeNull();
  });
});

describe("undo", () => {
  it("says what it took back and where, and what it did again", async () => {
    const editing = await open();
    await act(() => editing.current.commit("Rename", rename("Cello, low")));
    await act(() => editing.current.undo());
    await act(() => editing.current.redo());
    expect(said).toEqual([
      "Taken back: Rename (Cello), in Salt Lanterns",
      "Done again: Rename (Cello, low), in Salt Lanterns",
    ]);
  });

  it("pressed many times quickly is followed by the picture, one by one", async () => {
    const editing = await open();
    for (let n = 1; n <= 5; n++) await act(() => editing.current.commit(`Call it ${n}`, rename(`Cello ${n}`)));
    const shown: string[] = [];
    renderHook(
      () => {
        const { body } = useOpenProject(ID);
        const name = body && nameOf(body.project);
        if (name !== undefined && name !== shown.at(-1)) shown.push(name);
      },
      { wrapper: house.wrapper },
    );
    const { fetch } = globalThis;
    // An answer comes over a wire: between two of them a window can draw.
    globalThis.fetch = (...asked) =>
      fetch(...asked).then((answer) => new Promise((later) => setTimeout(() => later(answer), 5)));
    await act(async () => {
      for (const one of [1, 2, 3, 4, 5].map(() => editing.current.undo())) await one;
    });
    await waitFor(() => expect(shown).toEqual(["Cello 5", "Cello 4", "Cello 3", "Cello 2", "Cello 1", "Cello"]));
  });

  it("that is on its way is waited for by what is done next, which stands on what it leaves", async () => {
    const editing = await open();
    await act(() => editing.current.commit("Rename", rename("Cello, low")));
    said.length = 0;
    await act(async () => {
      const back = editing.current.undo();
      // As it is shown now the cello is still low: a step from there would be refused.
      const louder = editing.current.commit("Call it anew", rename("Cello, high"));
      await Promise.all([back, louder]);
    });
    expect(nameOf((await stored()).project)).toBe("Cello, high");
    await shows(editing, "Cello, high");
    await act(() => editing.current.undo());
    await shows(editing, "Cello");
    expect(said.filter((words) => !/^(Taken back|Done again)/.test(words))).toEqual([]);
  });

  it("that takes away what the next gesture is meant for leaves nothing to send, and says so", async () => {
    const editing = await open();
    await act(() => editing.current.commit("Rename", rename("Cello, low")));
    const steps = rename("Cello, lower")(editing.current.body!.project);
    said.length = 0;
    await act(async () => {
      const back = editing.current.undo();
      const late = editing.current.commit("From there", () => steps);
      expect(await late).toBeNull();
      await back;
    });
    expect(said.some((words) => words.includes("changed"))).toBe(true);
    const revisions = house.asked.filter((asked) => asked.endsWith(`/api/projects/${ID}/changes`));
    expect(revisions).toHaveLength(1);
    await shows(editing, "Cello");
  });

  it("of one change takes back that, with later ones standing; where a later one stands on it, it says which", async () => {
    const editing = await open();
    const first = await act(() => editing.current.commit("First name", rename("Cello 1")));
    const tempo = await act(() =>
      editing.current.commit("Faster", ({ tempo }) => [
        { id: mintKey(), kind: "setDetail", detail: "tempo", from: tempo, to: tempo + 2 },
      ]),
    );
    await act(() => editing.current.commit("Second name", rename("Cello 2")));
    expect(await act(() => editing.current.undo(first!))).toBe(false);
    expect(said.at(-1)).toBe(
      "“First name” cannot be taken back by itself: “Second name” was done on it since. Undo that first.",
    );
    expect(await act(() => editing.current.undo(tempo!))).toBe(true);
    expect(nameOf((await stored()).project)).toBe("Cello 2");
    expect(await act(() => editing.current.undo(tempo!))).toBe(false);
    expect(said.at(-1)).toBe("That has been taken back already.");
    await act(() => editing.current.undo());
    await act(() => editing.current.undo());
    expect(nameOf((await stored()).project)).toBe("Cello");
  });
});

describe("what comes late", () => {
  it("of a fetch from before an undo does not bring back what was taken back", async () => {
    const editing = await open();
    await act(() => editing.current.commit("Rename", rename("Cello, low")));
    const { fetch } = globalThis;
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (letGo = resolve));
    globalThis.fetch = async (input, init) => {
      const answer = await fetch(input, init);
      if (!init?.method) await held;
      return answer;
    };
    const fetched = house.queries.refetchQueries({ queryKey: KEYS.project(ID) });
    await patiently(() => expect(house.asked.at(-1)).toBe(`GET /api/projects/${ID}`));
    await act(() => editing.current.undo());
    letGo();
    await act(() => fetched);
    globalThis.fetch = fetch;
    const now = await stored();
    expect([nameOf(now.project), now.history.redo]).toEqual(["Cello", "Rename (Cello)"]);
    expect(house.queries.getQueryData(KEYS.project(ID))).toEqual(now);
  });

  it("of another window's, heard while a gesture is on its way, is fetched behind that; what is shown is not", async () => {
    const editing = await open();
    const { revision } = editing.current.body!;
    const { fetch } = globalThis;
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (letGo = resolve));
    globalThis.fetch = async (input, init) => {
      const answer = await fetch(input, init);
      if (init?.method === "POST") await held;
      return answer;
    };
    let done: Promise<number | null> = Promise.resolve(null);
    act(() => void (done = editing.current.commit("Rename", rename("Cello, low"))));
    await waitFor(async () => expect((await stored()).revision).toBe(revision + 1));
    const { project } = await stored();
    const steps: Step[] = [{ id: mintKey(), kind: "setDetail", detail: "tempo", from: project.tempo, to: 91 }];
    value(await changeProject(house.context, ID, { baseRevision: revision + 1, label: "Theirs", steps }));
    expect([revision + 1, revision + 2].map((n) => isKnown(house.queries, ID, n))).toEqual([true, true]);
    letGo();
    await act(() => done);
    await waitFor(() => expect(editing.current.body!.project.tempo).toBe(91));
    globalThis.fetch = fetch;
    expect(nameOf(editing.current.body!.project)).toBe("Cello, low");
    expect([revision + 2, revision + 3].map((n) => isKnown(house.queries, ID, n))).toEqual([true, false]);
  });
});

describe("a project that is only looked at", () => {
  it("shows what is done to it elsewhere on the screen, and takes it back", async () => {
    const editing = await open();
    const { result: looking } = renderHook(() => useOpenProject(ID), { wrapper: house.wrapper });
    const before = nameOf(editing.current.body!.project);
    await act(() => editing.current.commit("Rename", rename("Cello, low")));
    await shows(looking, "Cello, low");
    expect(await act(() => looking.current.undo())).toBe(true);
    await shows(editing, before);
  });

  it("stays on the screen when a line breaks for a moment, and is fetched anew behind that", async () => {
    const editing = await open();
    const { fetch } = globalThis;
    globalThis.fetch = () => Promise.reject(new TypeError("The line broke"));
    await act(() => house.queries.refetchQueries({ queryKey: KEYS.project(ID) }));
    expect(house.queries.getQueryState(KEYS.project(ID))?.status).toBe("error");
    expect(editing.current.error).toBeNull();
    expect(nameOf(editing.current.body!.project)).toBe("Cello");
    globalThis.fetch = fetch;
    await act(() => house.queries.refetchQueries({ queryKey: KEYS.project(ID) }));
    expect(editing.current.body).toEqual(await stored());
    globalThis.fetch = () => Promise.reject(new TypeError("The line broke"));
    const never = renderHook(() => useOpenProject("ferry-light"), { wrapper: house.wrapper });
    await waitFor(() => expect(never.result.current.error?.message).toContain("does not answer"));
    globalThis.fetch = fetch;
  });

  it("that is not there says so; one that is not named asks for nothing", async () => {
    const missing = renderHook(() => useOpenProject("nowhere"), { wrapper: house.wrapper });
    await waitFor(() => expect(missing.result.current.error?.message).toContain("nowhere"));
    const asked = house.asked.length;
    const none = renderHook(() => useProjectEditing(null), { wrapper: house.wrapper });
    expect(none.result.current.body).toBeUndefined();
    expect(await act(() => none.result.current.commit("Rename", rename("x")))).toBeNull();
    expect(await act(() => none.result.current.undo())).toBe(false);
    expect(house.asked.length).toBe(asked);
  });
});
