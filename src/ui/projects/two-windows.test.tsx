// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { followChanges } from "@/clients/events";
import { type Project, getStrip } from "@/core/projects/project";
import type { Step } from "@/core/recall/steps";
import { createStrip } from "@/core/strips/strip";
import { value } from "@/server/testing";
import { getProject, makeProject } from "@/server/use-cases/projects/read";
import { mintKey } from "../kit/mint";
import { useProjectEditing } from "./editing";
import { isKnown } from "./sending";

vi.mock("../kit/say", () => import("@/app/testing/said"));

/*
 * Two windows on one project, each with what it keeps of the server and with its stream of news. However their single edits fall
 * between each other, both end with what the server has, and what does not meet stands together.
 */

let house: House;

/** The stream of news, from the store itself, as late as a wire makes it. */
class Stream extends EventTarget {
  private readonly tell = (change: unknown) =>
    setTimeout(() => this.dispatchEvent(new MessageEvent("change", { data: JSON.stringify(change) })), 3);
  constructor() {
    super();
    house.context.events.on("change", this.tell);
  }
  close() {
    house.context.events.off("change", this.tell);
  }
}

beforeEach(async () => {
  said.length = 0;
  house = await openHouse();
  vi.stubGlobal("EventSource", Stream);
  const { fetch } = globalThis;
  globalThis.fetch = (...asked) =>
    fetch(...asked).then((answer) => new Promise((later) => setTimeout(() => later(answer), 2)));
});
afterEach(async () => {
  vi.unstubAllGlobals();
  await house.close();
});

const STRIPS = ["cello", "voice"];
const make = async (): Promise<string> => {
  const strips = STRIPS.map((id) => createStrip(id, "audio", { name: id }, { strip: "main" }));
  const main = createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" });
  const words = { name: "Weir Song", artist: "", client: "", song: "", key: "" };
  const meter = { beats: 4, unit: 4 } as const;
  const project = { ...words, tempo: 92, meter, sampleRate: 48_000, strips: [...strips, main] };
  return value(await makeProject(house.context, { project })).project.id;
};

function openWindow(id: string) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const wrapper = ({ children }: { readonly children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  const stop = followChanges(queries, (project, revision) => isKnown(queries, project, revision));
  const { result, unmount } = renderHook(() => useProjectEditing(id), { wrapper });
  return { now: () => result.current, close: () => (stop(), unmount(), queries.clear()) };
}

type Edit = (project: Project) => readonly Step[];

const set =
  (strip: string, part: "level" | "pan", change: Readonly<Record<string, number | boolean>>): Edit =>
  (project) => {
    const from = getStrip(project, strip)[part];
    return [{ id: mintKey(), kind: "setPart", strip, part, from, to: { ...from, ...change } } as Step];
  };

/** What each window does, one after the other. The last of each is to the same cell as one of the other. */
const FIRST: readonly Edit[] = [
  set("cello", "level", { fader: -6 }),
  set("voice", "pan", { pan: -20 }),
  set("main", "level", { fader: -1 }),
];
const SECOND: readonly Edit[] = [
  set("voice", "level", { fader: -9 }),
  set("cello", "pan", { pan: 30 }),
  set("main", "level", { mute: true }),
];

/** Every order in which so many of the one and so many of the other can follow each other. */
function interleavings(first: number, second: number): readonly string[] {
  if (first === 0 || second === 0) return ["A".repeat(first) + "B".repeat(second)];
  return [
    ...interleavings(first - 1, second).map((rest) => `A${rest}`),
    ...interleavings(first, second - 1).map((rest) => `B${rest}`),
  ];
}

it.each([
  ["at once", false],
  ["each after the one before was heard of", true],
])(
  "whose edits fall between each other in any order, %s, end the same",
  async (_, waits) => {
    for (const order of interleavings(FIRST.length, SECOND.length)) {
      const id = await make();
      const [a, b] = [openWindow(id), openWindow(id)];
      await waitFor(() => expect([a.now().body, b.now().body].every(Boolean)).toBe(true));
      const made: Promise<number | null>[] = [];
      const stored = async () => value(await getProject(house.context, id));
      // No one asks anew: both have it by their answers and by the news.
      const settled = async () => {
        await act(() => Promise.all(made));
        await waitFor(async () => {
          const now = await stored();
          expect([a.now().body, b.now().body], order).toEqual([now, now]);
        });
      };
      const left = { A: [...FIRST], B: [...SECOND] };
      for (const who of order) {
        const [window, edits] = who === "A" ? [a, left.A] : [b, left.B];
        act(() => void made.push(window.now().commit(`Edit of ${who}`, edits.shift()!)));
        if (waits) await settled();
      }
      await settled();
      const { project, revision } = await stored();
      const [cello, voice, main] = [...STRIPS, "main"].map((strip) => getStrip(project, strip));
      const values = [cello!.level.fader, cello!.pan.pan, voice!.level.fader, voice!.pan.pan];
      expect(values, order).toEqual([-6, 30, -9, -20]);
      // On one cell the quicker stands, and the other too where it knew of that.
      const both = [main!.level.fader === -1, main!.level.mute];
      expect(both.filter(Boolean).length, order).toBe(waits ? 2 : revision - 4);
      a.close();
      b.close();
    }
  },
  60_000,
);
