// @vitest-environment jsdom
import { renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { loadDemo } from "@/demo/load";
import { usePassing } from "./fitting";

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
