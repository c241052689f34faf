import { expect, test } from "./server";

/** Two windows on one library: they hear of each other, and neither overwrites the other. */

test("two windows that save the same preset both keep their sound", async ({ context, server }) => {
  const [one, two] = [await context.newPage(), await context.newPage()];
  await one.goto(`${server.url}/bench?preset=harmonium-softened`);
  await two.goto(`${server.url}/bench?project=salt-lanterns&strip=harmonium`);
  await expect(two.getByText("1 value differs from version 1")).toBeVisible();
  await one.getByRole("slider", { name: "Output", exact: true }).focus();
  await one.keyboard.press("ArrowUp");
  await expect(one.getByText("1 value differs from version 1")).toBeVisible();

  await two.getByRole("button", { name: "Save new version" }).click();
  await expect(two.getByText("version 2, nothing changed")).toBeVisible();
  await one.getByRole("button", { name: "Save new version" }).click();
  await expect(one.getByText("has version 2 by now; yours is based on version 1")).toBeVisible();
  await one.getByRole("button", { name: "Save as version 3" }).click();
  await expect(one.getByText("version 3, nothing changed")).toBeVisible();

  const value = async (version: number, param: string): Promise<unknown> => {
    const answer = await fetch(`${server.url}/api/presets/harmonium-softened?version=${version}`);
    const { preset } = (await answer.json()) as {
      preset: { content: { chain: { nodes: { values: Record<string, unknown> }[] } } };
    };
    return preset.content.chain.nodes[0]?.values[param];
  };
  expect([await value(1, "band2.gain"), await value(2, "band2.gain"), await value(3, "band2.gain")]).toEqual([
    -4.5, -6, -4.5,
  ]);
  expect([await value(1, "output"), await value(2, "output"), await value(3, "output")]).toEqual([0, 0, 0.5]);
});

test("a change in one window is seen in the other", async ({ context, server }) => {
  const [one, two] = [await context.newPage(), await context.newPage()];
  await one.goto(`${server.url}/projects/tidemill-tour`);
  await expect(one.getByRole("row", { name: /Captions/ })).toContainText("not saved");
  await two.goto(`${server.url}/bench?project=tidemill-tour&strip=captions`);
  await two.getByRole("button", { name: "Take out" }).click();
  await expect(one.getByRole("row", { name: /Captions/ })).toContainText("no plugins");
  await two.keyboard.press("Control+z");
  await expect(one.getByRole("row", { name: /Captions/ })).toContainText("not saved");
});

test("a draft that was left is there again, with its undo", async ({ page, server }) => {
  await page.goto(`${server.url}/bench?preset=quintet-blend`);
  await page.getByRole("slider", { name: "Output", exact: true }).focus();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByText("1 value differs from version 1")).toBeVisible();
  await page.goto(`${server.url}/library`);
  await page.goto(`${server.url}/bench?preset=quintet-blend`);
  await expect(page.getByText("1 value differs from version 1")).toBeVisible();
  await page.getByRole("button", { name: "Put back Parametric EQ: Output" }).click();
  await expect(page.getByText("version 1, nothing changed")).toBeVisible();
});

test("two windows that change one card: what does not meet stands together, what does is told, and nothing is lost", async ({
  context,
  server,
}) => {
  const address = `${server.url}/library?q=${encodeURIComponent('name:"Cello, wood and rosin"')}`;
  const [one, two] = [await context.newPage(), await context.newPage()];
  const cardOf = async () => {
    const answer = await fetch(`${server.url}/api/presets?q=rosin`);
    const { items } = (await answer.json()) as { items: { card: { name: string; purpose: string } }[] };
    return items[0]?.card;
  };
  for (const page of [one, two]) {
    await page.goto(address);
    await expect(page.getByRole("listbox", { name: "Sounds" }).getByRole("option")).toHaveCount(1);
    await page.keyboard.press("e");
    await expect(page.getByRole("dialog")).toBeVisible();
  }
  const purpose = one.getByRole("dialog").getByRole("combobox", { name: "For", exact: true });
  await purpose.press("Backspace");
  await purpose.fill("cello under voices");
  await two.getByRole("dialog").getByLabel("Name", { exact: true }).fill("Cello, rosin and wood");
  await two.getByRole("button", { name: "Save the card" }).click();
  await expect(two.getByRole("dialog")).toBeHidden();
  await one.getByRole("button", { name: "Save the card" }).click();
  await expect(one.getByRole("dialog")).toBeHidden();
  expect(await cardOf()).toMatchObject({ name: "Cello, rosin and wood", purpose: "cello under voices" });

  for (const page of [one, two]) {
    await page.goto(`${server.url}/library?q=rosin`);
    await expect(page.getByRole("listbox", { name: "Sounds" }).getByRole("option")).toHaveCount(1);
    await page.keyboard.press("e");
    await page
      .getByRole("dialog")
      .getByLabel("Name", { exact: true })
      .fill(page === one ? "Rosin, mine" : "Rosin, theirs");
  }
  await two.getByRole("button", { name: "Save the card" }).click();
  await expect(two.getByRole("dialog")).toBeHidden();
  await one.getByRole("button", { name: "Save the card" }).click();
  await expect(one.getByRole("alert")).toContainText("It is called “Rosin, theirs” by now.");
  expect(await cardOf()).toMatchObject({ name: "Rosin, theirs" });
  await one.getByRole("button", { name: "Save the card" }).click();
  await expect(one.getByRole("dialog")).toBeHidden();
  expect(await cardOf()).toMatchObject({ name: "Rosin, mine" });
  await one.keyboard.press("Control+z");
  await expect.poll(cardOf).toMatchObject({ name: "Rosin, theirs", purpose: "cello under voices" });
});

test("ten tabs all work and hear of each other, also when the one that listened for them is closed", async ({
  context,
  server,
}) => {
  test.setTimeout(360_000);
  const tabs = await Promise.all(Array.from({ length: 10 }, () => context.newPage()));
  for (const tab of tabs) {
    await tab.goto(`${server.url}/library?q=sextet`);
    await expect(tab.getByText("No sound matches")).toBeVisible();
  }
  const save = async (name: string) => {
    const { preset } = (await (await fetch(`${server.url}/api/presets/quintet-blend`)).json()) as {
      preset: { kind: string; content: unknown };
    };
    const card = { name, folder: null, tags: [], purpose: "", rating: 0, notes: "", origin: {} };
    const saved = await fetch(`${server.url}/api/presets`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ preset: { kind: preset.kind, content: preset.content, card } }),
    });
    expect(saved.status).toBe(201);
  };
  await save("Sextet, the first");
  for (const tab of tabs) await expect(tab.getByText("Sextet, the first").first()).toBeVisible();
  const [first, ...others] = tabs;
  await first!.close();
  await save("Sextet, the second");
  for (const tab of others) await expect(tab.getByText("Sextet, the second").first()).toBeVisible();
});
