// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { getStrip } from "@/core/projects/project";
import { processorsOf } from "@/core/chains/tree";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { getProject } from "@/server/use-cases/projects/read";
import { useInHand } from "../projects/in-hand";
import { PlanScreen } from "./plan-screen";
import { whenSent } from "../projects/sending";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const ID = "salt-lanterns";

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  await useInHand.persist.rehydrate();
  house = await openHouse(loadDemo);
  layOut({ width: 900, height: 620 });
});

afterEach(() => house.close());

async function open(address: string): Promise<void> {
  goTo(`/projects/${ID}/plan?${address}`);
  house.show(
    <>
      <Keys />
      <PlanScreen id={ID} />
    </>,
  );
  await screen.findByRole("table", { name: "Changes" });
}

const applyButton = () => screen.getByRole<HTMLButtonElement>("button", { name: /^Apply \d+ changes?$/ });
const ready = (n: number) =>
  waitFor(() => {
    expect(applyButton().textContent).toBe(`Apply ${n} ${n === 1 ? "change" : "changes"}`);
    expect(applyButton().disabled).toBe(false);
  });
const apply = async () => {
  press("Enter", { ctrlKey: true });
  await waitFor(() => expect(whereNow()).toBe(`/projects/${ID}`));
  await whenSent(house.queries, ID);
};
const project = async () => value(await getProject(house.context, ID)).project;
const choose = async (choice: string) => {
  fireEvent.keyDown(screen.getByRole("button", { name: /^Choice of parts/ }), { key: "Enter" });
  fireEvent.click(await screen.findByRole("menuitem", { name: choice }));
};

describe("several sounds", () => {
  it("are one plan, of which the first chain stands and the second is told to be left out", async () => {
    await open("preset=rim-and-air&version=1&preset=frame-drum-close&version=1&strips=cello");
    expect(screen.getByRole("heading", { level: 1 }).textContent).toBe(
      "Apply “Rim and air” and “Frame drum, skin and hand”",
    );
    expect(
      screen.getByText(/“Rim and air” gives it the inserts; those of “Frame drum, skin and hand” are left out/),
    ).toBeTruthy();
    await ready(3);
    await apply();
    expect(getStrip(await project(), "cello").inserts.from?.preset).toBe("rim-and-air");
  });

  it("that are plugins are added one behind the other", async () => {
    await open("preset=maud-s-esses&version=3&preset=air-only-just&version=2&strips=cello");
    await waitFor(() => expect(applyButton().disabled).toBe(false));
    await apply();
    const { inserts } = getStrip(await project(), "cello");
    expect(processorsOf(inserts).map(({ from }) => from?.preset)).toEqual(["maud-s-esses", "air-only-just"]);
  });
});

describe("strips of another project", () => {
  const FERRY = "from=ferry-light&take=voice&strips=voice";
  it("say where they come from; what is asked is answered beforehand; single sends are switched off", async () => {
    await open(FERRY);
    expect(screen.getByText(/^as it is in Ferry Light, onto Voice of Salt Lanterns$/)).toBeTruthy();
    await choose("Sends only");
    const side = within(screen.getByRole("complementary", { name: "Questions and changes" }));
    fireEvent.click(await side.findByRole("radio", { name: "Make a return called Plate here" }));
    const answer = await screen.findByRole("checkbox", { name: "Send to Answer of Voice" });
    fireEvent.click(answer);
    await waitFor(() => expect(side.queryByText(/“Answer” is missing here/)).toBeNull());
    await waitFor(() => expect(applyButton().disabled).toBe(false));
    await apply();
    const now = await project();
    const plate = now.strips.find(({ look }) => look.name === "Plate")!;
    const ferry = value(await getProject(house.context, "ferry-light")).project;
    expect(plate.inserts).toEqual(getStrip(ferry, "plate").inserts);
    expect(getStrip(now, "voice").sends.map(({ to }) => to)).toEqual([{ strip: plate.id }]);
  });
});

describe("a choice of parts", () => {
  it("is remembered for such a thing once it was applied, and kept under a name of one's own", async () => {
    await open("preset=cello-strip-ferry-light&version=1&strips=cello");
    await choose("Level and pan");
    await ready(2);
    await apply();
    cleanup();
    await open("preset=cello-strip-ferry-light&version=1&strips=voice");
    await screen.findByRole("button", { name: "Choice of parts: Level and pan" });
    const parts = within(screen.getByLabelText("Parts"));
    fireEvent.click(parts.getByRole("button", { name: "Look" }));
    fireEvent.keyDown(screen.getByRole("button", { name: "Choice of parts: Some" }), { key: "Enter" });
    fireEvent.click(await screen.findByRole("menuitem", { name: "Keep this choice under a name…" }));
    fireEvent.change(await screen.findByRole("textbox", { name: "Name" }), { target: { value: "Where it stood" } });
    fireEvent.click(screen.getByRole("button", { name: "Keep" }));
    await screen.findByRole("button", { name: "Choice of parts: Where it stood" });
  });
});
