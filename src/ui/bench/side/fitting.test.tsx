// @vitest-environment jsdom
import { renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { loadDemo } from "@/demo/load";
import { EMPTY_CHAIN, type Processor } from "@/core/chains/chain";
import { useFitting, useFittingWords, usePassing } from "./fitting";

vi.mock("../../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  house = await openHouse(loadDemo);
});

afterEach(async () => {
  vi.useRealTimers();
  await house.close();
});

const kept = () => house.asked.filter((asked) => asked.endsWith("/used"));
const useOf = (preset: string) => `POST /api/presets/${preset}/used`;

it("keeps as used what one stays with for eight seconds, or where one stops; what one only passes by is no use", () => {
  const walk = renderHook(() => usePassing(true), { wrapper: house.wrapper });
  vi.useFakeTimers();
  walk.result.current("rim-and-air");
  vi.advanceTimersByTime(7000);
  walk.result.current("narrator-close");
  vi.advanceTimersByTime(7900);
  expect(kept()).toEqual([]);
  vi.advanceTimersByTime(200);
  expect(kept()).toEqual([useOf("narrator-close")]);
  walk.result.current("rim-and-air");
  walk.unmount();
  expect(kept()).toEqual([useOf("narrator-close"), useOf("rim-and-air")]);
});

it("keeps nothing where a sound is only tried, as on a draft", () => {
  const walk = renderHook(() => usePassing(false), { wrapper: house.wrapper });
  vi.useFakeTimers();
  walk.result.current("rim-and-air");
  vi.advanceTimersByTime(20_000);
  walk.unmount();
  expect(kept()).toEqual([]);
});

it("lists nothing of the plugin before while the sounds of the next are on their way, and goes on with those", async () => {
  const plugin = (model: string): Processor => ({ type: "processor", key: model, model, enabled: true, values: {} });
  /** What could be loaded each time that it was drawn: for which plugin, and of which model. */
  const drawn: { readonly wanted: string; readonly models: readonly string[] }[] = [];
  const pane = renderHook(
    ({ model }: { readonly model: string }) => {
      const words = useFittingWords();
      const around = { strip: null, chain: { ...EMPTY_CHAIN, nodes: [plugin(model)] } };
      const { rows } = useFitting(around, { kind: "processor", processor: plugin(model) }, words);
      const models = rows.map(({ content }) => (content.kind === "plugin" ? content.processor.model : content.kind));
      drawn.push({ wanted: model, models });
      return models.length;
    },
    { wrapper: house.wrapper, initialProps: { model: "parametric-eq" } },
  );
  for (const model of ["hall", "parametric-eq", "vca-compressor"]) {
    await waitFor(() => expect(pane.result.current).toBeGreaterThan(0));
    pane.rerender({ model });
  }
  await waitFor(() => expect(pane.result.current).toBeGreaterThan(0));
  for (const { wanted, models } of drawn) expect(new Set([...models, wanted])).toEqual(new Set([wanted]));
  expect(new Set(drawn.filter(({ models }) => models.length > 0).map(({ wanted }) => wanted)).size).toBe(3);
});
