// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { engine, quiet } from "@/app/testing/engine";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { loadDemo } from "@/demo/load";
import { useRecall } from "../plan/recall";
import { useInHand } from "../projects/in-hand";
import { StripsFound } from "./strips-found";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

/* Strips of projects below the sounds of the library. */

let house: House;
beforeEach(async () => {
  quiet();
  useInHand.setState({ project: null, strips: [], alwaysPlan: false });
  house = await openHouse(loadDemo);
  goTo("/library?q=cello");
});
afterEach(() => house.close());

function Shown() {
  const recall = useRecall();
  return <StripsFound words="cello" recall={recall} />;
}
const found = () => screen.findByRole("region", { name: "Strips of projects" });

it("are opened and heard, and planned only where a project is in hand, onto its strips", async () => {
  house.show(<Shown />);
  const section = await found();
  expect(within(section).queryByRole("button", { name: /^Plan/ })).toBeNull();
  const [open] = within(section).getAllByRole("button", { name: /^Open Cello of .* on the bench$/ });
  fireEvent.click(open!);
  expect(whereNow()).toMatch(/^\/bench\?project=[a-z-]+&strip=cello$/);
  fireEvent.click(within(section).getByTitle("Hear Cello of Ferry Light"));
  await waitFor(() => expect(engine.sounds.a?.chain).toHaveLength(2));

  act(() => void useInHand.setState({ project: "neap-tide", strips: ["patch"] }));
  const plan = await within(section).findByRole("button", { name: /^Plan Cello of Ferry Light to / });
  fireEvent.click(plan);
  expect(whereNow()).toMatch(/^\/projects\/neap-tide\/plan\?from=ferry-light&take=cello/);
});

it("are three at first, and more by a press", async () => {
  house.show(<Shown />);
  const section = await found();
  const count = () => within(section).getAllByRole("listitem").length;
  const all = Number(/^\d+/.exec(within(section).getByRole("heading").textContent)![0]);
  expect(count()).toBe(Math.min(3, all));
  if (all <= 3) return;
  fireEvent.click(within(section).getByRole("button", { name: "Show all" }));
  await waitFor(() => expect(count()).toBe(all));
});
