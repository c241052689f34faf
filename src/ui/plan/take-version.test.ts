// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import * as api from "@/clients/api";
import { processorsOf } from "@/core/chains/tree";
import { getStrip } from "@/core/projects/project";
import { turn } from "@/core/recall/gestures";
import { loadDemo } from "@/demo/load";
import { mintKey } from "../kit/mint";
import { commitTo } from "../projects/editing";
import { bring } from "../projects/sending";
import { takeVersion } from "./take-version";

vi.mock("../kit/say", () => import("@/app/testing/said"));

const PROJECT = "salt-lanterns";
const STRIP = "voice";

let house: House;

beforeEach(async () => {
  said.length = 0;
  house = await openHouse(loadDemo);
  bring(house.queries, await api.getProject(PROJECT));
  // It goes by the sound, and is set otherwise.
  const to = { preset: "rim-and-air", version: 1, name: "Rim and air" };
  await commitTo(house.queries, PROJECT, {
    label: "Go by it",
    make: (project) => [
      { id: mintKey(), strip: STRIP, kind: "setFrom", from: getStrip(project, STRIP).inserts.from ?? null, to },
    ],
  });
});

afterEach(() => house.close());

const take = () =>
  takeVersion({
    queries: house.queries,
    project: PROJECT,
    followers: [{ strip: STRIP, reference: { preset: "rim-and-air", version: 1, name: "Rim and air" } }],
    version: 1,
    label: "Back to saved",
  });
const strip = async () => getStrip((await api.getProject(PROJECT)).project, STRIP);

it("takes a version once where it is asked for twice at once, and says nothing of it", async () => {
  const [first, second] = await Promise.all([take(), take()]);
  expect(typeof first).toBe("number");
  expect(second).toBeNull();
  expect((await strip()).inserts.from).toMatchObject({ preset: "rim-and-air", version: 1 });
  expect(said).toEqual([]);
});

it("is planned anew on what is done while the plan is on its way", async () => {
  const taking = take();
  const { key } = processorsOf((await strip()).inserts)[0]!;
  const turned = commitTo(house.queries, PROJECT, {
    label: "Turn",
    make: (project) => turn({ strip: getStrip(project, STRIP), mint: mintKey }, key, { output: -3 }),
  });
  expect(await turned).not.toBeNull();
  expect(await taking).not.toBeNull();
  expect((await strip()).inserts.from).toMatchObject({ preset: "rim-and-air", version: 1 });
  expect(said).toEqual([]);
});
