import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { deflateRawSync } from "node:zlib";
import canonicalize from "canonicalize";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { ProjectBody } from "@/contracts/projects";
import { type Random, seededRandom } from "@/core/random";
import { type Mix, mixesOf } from "@/core/projects/mixes";
import { withoutKept } from "@/core/projects/project";
import { reliefsOf } from "@/core/projects/reliefs";
import { putBack } from "@/core/relief/put-back";
import { pluginsOn, reliefGroups, relieve } from "@/core/relief/relief";
import { changePart } from "@/core/recall/arrange";
import type { Step } from "@/core/recall/steps";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { refused, value } from "../../testing";
import { openDraft } from "../drafts";
import { planFor } from "../plans";
import { changeProject } from "./change";
import { getRevision, listHistory, noteBetween, returnTo } from "./history";
import { keepMix } from "./mixes";
import { getProject } from "./read";
import { redo, undo } from "./walk";

const ID = "salt-lanterns";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-history-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const now = async (): Promise<ProjectBody> => value(await getProject(context, ID));

const change = async ({ revision }: ProjectBody, label: string, steps: readonly Step[]): Promise<void> => {
  if (steps.length > 0)
    value(await changeProject(context, ID, { baseRevision: revision, label, steps: [...steps] as never }));
};

/** What a hand does to a project, by chance. */
const HABITS: readonly ((body: ProjectBody, random: Random) => Promise<void>)[] = [
  (body, random) => {
    const strip = body.project.strips[Math.floor(random() * body.project.strips.length)]!;
    const fader = Math.round(random() * 400) / 10 - 40;
    return change(
      body,
      `Level: ${fader} dB`,
      changePart(strip, "level", { fader, mute: random() < 0.1 }, context.mint),
    );
  },
  (body, random) => {
    const strip = body.project.strips[Math.floor(random() * body.project.strips.length)]!;
    const name = `${strip.look.name.slice(0, 20)} ${Math.floor(random() * 9)}`;
    return change(body, `Rename ${strip.look.name}`, changePart(strip, "look", { ...strip.look, name }, context.mint));
  },
  async (body, random) => {
    const strips = body.project.strips.filter(({ kind }) => kind === "audio");
    const strip = strips[Math.floor(random() * strips.length)];
    if (!strip) return;
    const { plan } = value(
      await planFor(context, ID, {
        requests: [
          {
            source: { preset: random() < 0.5 ? "narrator-close" : "rim-and-air" },
            parts: ["inserts", "level"],
            targets: random() < 0.7 ? { strips: [strip.id] } : { newStrip: { after: strip.id } },
            mode: "replace",
          },
        ],
      }),
    );
    await change(body, "Apply a sound", plan.steps);
  },
  async (body) => {
    if (body.history.undo) await undo(context, ID, body.revision);
  },
  async (body) => {
    if (body.history.undo) await undo(context, ID, body.revision);
  },
  async (body) => {
    if (body.history.redo) await redo(context, ID, body.revision);
  },
  (body, random) => {
    const [relief] = reliefsOf(body.project);
    if (relief && random() < 0.5) return change(body, "Put back", putBack(body.project, relief, context.mint).steps);
    const strips = body.project.strips.flatMap(({ id }) => (random() < 0.3 ? [id] : []));
    const [group] = reliefGroups(pluginsOn(body.project, strips));
    const how = random() < 0.5 ? "off" : "out";
    const at = context.now().toISOString();
    return change(body, "Relieve", group ? relieve({ ...group, how, at }, context.mint) : []);
  },
  async (body, random) => {
    const mixes = mixesOf(body.project);
    const mix = mixes[Math.floor(random() * mixes.length)];
    if (mix && random() < 0.6) await setMix(body, mix, random() < 0.5 ? null : { ...mix, take: String(body.revision) });
    else await keepMix(context, ID, { baseRevision: body.revision, name: `Mix ${body.revision}`, take: "", note: "" });
  },
  async (body, random) => {
    if (random() < 0.2)
      await returnTo(context, ID, {
        baseRevision: body.revision,
        revision: Math.floor(random() * (body.revision + 1)),
      });
  },
];

const setMix = (body: ProjectBody, mix: Mix, to: Mix | null): Promise<void> =>
  change(body, "A kept mix", [{ id: context.mint(), kind: "setMix", mix: mix.id, from: mix, to }]);

/** In how many changes a history is made, and of which share of its moments it is looked at; HISTORY_CHECK=all looks at each. */
const CHANGES = 2000;
const LOOKED_AT = process.env["HISTORY_CHECK"] === "all" ? 1 : 0.1;

describe("the history of a project", () => {
  it("gives back every moment as it was answered then, whatever was done, and takes little room", async () => {
    const random = seededRandom(15);
    const then = new Map<number, string | undefined>();
    for (let done = 0; done < CHANGES; done++) {
      const body = await now();
      then.set(body.revision, canonicalize(body.project));
      await HABITS[Math.floor(random() * HABITS.length)]!(body, random);
    }
    for (const [n, answered] of [...then].filter(() => random() < LOOKED_AT))
      expect(canonicalize(value(await getRevision(context, ID, n)).project), `moment ${n}`).toBe(answered);
    const [kept] = (await context.db.raw("SELECT count(*) AS n, sum(length(packed)) AS size FROM moments")) as [
      { readonly n: number; readonly size: number },
    ];
    const [{ size }] = (await context.db.raw("SELECT sum(length(steps)) AS size FROM revisions")) as [{ size: number }];
    expect(kept.n).toBeGreaterThan(2);
    // Of the first moment there is always the whole.
    const whole = kept.size / kept.n;
    expect(kept.size - whole).toBeLessThan(size / 2);
  }, 240_000);

  it("is found by words, by when, and by a strip; each change says how it stands", async () => {
    const { project } = await now();
    const [first, second] = project.strips.filter(({ kind }) => kind === "audio");
    const level = async (strip: typeof first, fader: number) =>
      change(await now(), `Level: ${fader} dB`, changePart(strip!, "level", { fader, mute: false }, context.mint));
    await level(first, -11);
    await level(second, -12);
    value(await undo(context, ID, (await now()).revision));
    const found = async (query: object) => value(await listHistory(context, ID, query)).items;
    expect((await found({})).map(({ n, standing, of }) => [n, standing, of])).toEqual([
      [3, null, 2],
      [2, "undone", null],
      [1, "done", null],
    ]);
    expect((await found({ strip: first!.id })).map(({ n }) => n)).toEqual([1]);
    expect((await found({ q: `level of ${second!.look.name}` })).map(({ n }) => n)).toEqual([3, 2]);
    expect((await found({ q: "since tomorrow" })).map(({ n }) => n)).toEqual([]);
    expect((await found({ q: "before yesterday" })).map(({ n }) => n)).toEqual([]);
    expect((await found({ before: 2 })).map(({ n }) => n)).toEqual([1]);
    const was = first!.level.fader.toFixed(1).replace("-", "−");
    expect((await found({ before: 2 }))[0]).toMatchObject({
      sentences: [`${first!.look.name}: level ${was} → −11.0 dB.`],
      steps: 1,
    });
    expect(value(await listHistory(context, ID, { limit: 1 }))).toMatchObject({ more: true, revision: 3 });
  });

  it("is there of changes from before it was written what they concerned", async () => {
    const body = await now();
    const strip = body.project.strips[0]!;
    await change(body, "Level", changePart(strip, "level", { fader: -3, mute: false }, context.mint));
    await context.writer("revisions").update({ about: null });
    await context.writer("moments").delete();
    expect(value(await listHistory(context, ID, { q: strip.look.name })).items).toHaveLength(1);
    expect(value(await getRevision(context, ID, 0)).project).toEqual(body.project);
  });

  it("is returned to as one change, which can be taken back, and nothing else is lost", async () => {
    const begun = await now();
    const strip = begun.project.strips[0]!;
    for (const fader of [-1, -2, -3])
      await change(
        await now(),
        `Level: ${fader} dB`,
        changePart((await now()).project.strips[0]!, "level", { fader, mute: false }, context.mint),
      );
    const back = value(await returnTo(context, ID, { baseRevision: 3, revision: 1 }));
    expect(back.project.strips[0]).toEqual({ ...strip, level: { fader: -1, mute: false } });
    expect(back.history.undo).toMatch(/^Return to after “Level: -1 dB”/);
    expect(value(await undo(context, ID, back.revision)).project.strips[0]!.level.fader).toBe(-3);
    const whole = value(await returnTo(context, ID, { baseRevision: 5, revision: 0 }));
    expect(whole.project).toEqual(begun.project);
    expect(refused(await returnTo(context, ID, { baseRevision: 6, revision: 0 })).code).toBe("refused");
    expect(refused(await returnTo(context, ID, { baseRevision: 5, revision: 1 })).code).toBe("stale");
    expect(refused(await returnTo(context, ID, { baseRevision: 6, revision: 99 })).code).toBe("notFound");
  });

  it("is told in sentences between two moments, in whichever order they are asked for", async () => {
    const [first] = (await now()).project.strips.filter(({ kind }) => kind === "audio");
    const steps = changePart(first!, "level", { fader: -33, mute: false }, context.mint);
    await change(await now(), "Level", steps);
    const { text } = value(await noteBetween(context, ID, { from: 0, to: 1 }));
    expect(text).toBe(
      `${first!.look.name}: Level ${first!.level.fader.toFixed(1).replace("-", "−")} dB → −33.0 dB.\n1 strip in all.`,
    );
    expect(value(await noteBetween(context, ID, { from: 1, to: 0 })).text).toBe(text);
    expect(value(await noteBetween(context, ID, { from: 1, to: 1 })).text).toBe("Nothing differs.");
    expect(refused(await noteBetween(context, ID, { from: 0, to: 2 })).code).toBe("notFound");
  });

  it("gives one part of one strip back alone, through the plan", async () => {
    const begun = await now();
    const [first, second] = begun.project.strips;
    for (const strip of [first!, second!])
      await change(await now(), "Level", changePart(strip, "level", { fader: -33, mute: true }, context.mint));
    const before = (await now()).project;
    const { plan } = value(
      await planFor(context, ID, {
        requests: [
          {
            source: { project: ID, revision: 0, strips: [first!.id] },
            parts: ["level"],
            targets: { strips: [first!.id] },
            mode: "replace",
          },
        ],
      }),
    );
    await change(await now(), "Take its level back", plan.steps);
    const after = (await now()).project;
    expect(after.strips[0]).toEqual({ ...before.strips[0], level: first!.level });
    expect(after.strips.slice(1)).toEqual(before.strips.slice(1));
  });

  it("gives several strips back each to itself, whatever they are called by now", async () => {
    const begun = await now();
    const [first, second] = begun.project.strips.filter(({ kind }) => kind === "audio");
    const rename = async (strip: typeof first, name: string) =>
      change(await now(), "Rename", changePart(strip!, "look", { ...strip!.look, name }, context.mint));
    await rename(first, "For a while");
    await rename({ ...second!, look: second!.look }, first!.look.name);
    const swapped = (await now()).project;
    for (const { id } of [first!, second!]) {
      const strip = (await now()).project.strips.find((one) => one.id === id)!;
      await change(await now(), "Level", changePart(strip, "level", { fader: -33, mute: true }, context.mint));
    }
    const { plan } = value(
      await planFor(context, ID, {
        requests: [
          {
            source: { project: ID, revision: 0, strips: [first!.id, second!.id] },
            parts: ["level"],
            targets: { set: { onto: "matched", among: null, after: null } },
            mode: "replace",
          },
        ],
      }),
    );
    expect(plan.matches.map(({ saved, strip, reason }) => [saved, strip, reason])).toEqual([
      [first!.id, first!.id, "the same strip"],
      [second!.id, second!.id, "the same strip"],
    ]);
    await change(await now(), "Take them back", plan.steps);
    expect((await now()).project).toEqual(swapped);
  });
});

describe("a mix that is kept", () => {
  const cello = async () => (await now()).project.strips.find(({ look }) => look.name === "Cello")!;
  const setLevel = async (fader: number) =>
    change(await now(), "Level", changePart(await cello(), "level", { fader, mute: false }, context.mint));
  const keep = async (name: string, revision?: number) =>
    value(
      await keepMix(context, ID, {
        baseRevision: (await now()).revision,
        ...(revision === undefined ? {} : { revision }),
        name,
        take: "2",
        note: "as they heard it",
      }),
    );

  it("is the project as it was before it was kept, or the moment that is said, in the order of the moments", async () => {
    await setLevel(-7);
    const { project } = await keep("Chorus up");
    await setLevel(-20);
    await keep("Before", 0);
    const [before, chorus] = mixesOf((await now()).project);
    expect([before?.name, before?.n, chorus?.name, chorus?.n, chorus?.take]).toEqual([
      "Before",
      0,
      "Chorus up",
      1,
      "2",
    ]);
    const then = value(await getRevision(context, ID, 1)).project;
    expect(then).toEqual(withoutKept(project));
  });

  it("stays when one returns to what was before it, and is taken back by undo", async () => {
    await setLevel(-7);
    await keep("Chorus up");
    const { revision } = await now();
    value(await returnTo(context, ID, { baseRevision: revision, revision: 0 }));
    expect(mixesOf((await now()).project).map(({ name }) => name)).toEqual(["Chorus up"]);
    expect((await cello()).level.fader).toBe(-4.5);
    value(await undo(context, ID, (await now()).revision));
    value(await undo(context, ID, (await now()).revision));
    expect((await now()).project).not.toHaveProperty("mixes");
  });

  it("is called otherwise and removed by steps, also where another window was before", async () => {
    const body = await keep("Chorus up");
    const [mix] = mixesOf(body.project);
    await setLevel(-7);
    await setMix(body, mix!, { ...mix!, name: "For the label" });
    expect(mixesOf((await now()).project)[0]?.name).toBe("For the label");
    await setMix(await now(), mixesOf((await now()).project)[0]!, null);
    expect(mixesOf((await now()).project)).toEqual([]);
  });

  it("is refused for a moment that is still to come, and for a project that has gone on", async () => {
    const { revision } = await now();
    const asked = { name: "Later", take: "", note: "" };
    expect(refused(await keepMix(context, ID, { ...asked, baseRevision: revision, revision: revision + 1 })).code).toBe(
      "notFound",
    );
    await setLevel(-7);
    expect(refused(await keepMix(context, ID, { ...asked, baseRevision: revision })).code).toBe("stale");
    const forged = { id: "m", ...asked, at: "2026-11-24T10:00:00.000Z", n: 99 };
    const steps: Step[] = [{ id: "s", kind: "setMix", mix: "m", from: null, to: forged }];
    const body = await now();
    const forging = await changeProject(context, ID, { baseRevision: body.revision, label: "x", steps: [...steps] });
    expect(refused(forging).code).toBe("refused");
    expect((await now()).project).not.toHaveProperty("mixes");
  });

  it("opens a strip as it was on the bench, as a copy: the project, and a sound that was begun, stay as they are", async () => {
    const before = await now();
    const strip = before.project.strips.find((one) => one.inserts.nodes.length > 0 && one.kind === "audio")!;
    const emptied = { ...strip.inserts, nodes: [] };
    await change(before, "Empty", changePart(strip, "inserts", emptied, context.mint));
    const begun = value(await openDraft(context, { preset: null }));
    const moment = { project: ID, revision: before.revision, strip: strip.id, name: `${strip.look.name}, before` };
    const then = value(await openDraft(context, { preset: null, moment }));
    expect(then.project).toMatchObject({ name: moment.name, artist: "Copper Heron", song: "Salt Lanterns", tempo: 92 });
    expect(then.project.strips[0]?.inserts).toEqual(strip.inserts);
    const [copy] = then.project.strips;
    value(
      await changeProject(context, then.project.id, {
        baseRevision: then.revision,
        label: "Level",
        steps: [...changePart(copy!, "level", { fader: -9, mute: false }, context.mint)],
      }),
    );
    expect((await now()).project.strips.find(({ id }) => id === strip.id)?.inserts.nodes).toEqual([]);
    // The same moment again is the copy that was left; nothing yet is what was begun from nothing.
    expect(value(await openDraft(context, { preset: null, moment })).project.id).toBe(then.project.id);
    const other = value(await openDraft(context, { preset: null, moment: { ...moment, name: "Another moment" } }));
    expect(other.project.id).not.toBe(then.project.id);
    expect(value(await openDraft(context, { preset: null })).project.id).toBe(begun.project.id);
    for (const wrong of [{ strip: "nobody" }, { revision: 99 }, { project: "nowhere" }])
      expect(refused(await openDraft(context, { preset: null, moment: { ...moment, ...wrong } })).code).toBe(
        "notFound",
      );
  });

  it("shows a moment whose model nobody knows any more, and takes nothing of it back unsaid", async () => {
    const { project } = await now();
    const strip = project.strips.find(({ inserts }) => inserts.nodes.length > 0)!;
    await change(await now(), "Level", changePart(strip, "level", { fader: -8, mute: false }, context.mint));
    const unknown = JSON.stringify(project).replace('"model":"parametric-eq"', '"model":"left-behind"');
    expect(unknown).toContain("left-behind");
    await context
      .writer("moments")
      .where({ project: ID, n: 0 })
      .update({ packed: deflateRawSync(unknown) });
    expect(JSON.stringify(value(await getRevision(context, ID, 0)).project)).toContain("left-behind");
    expect(value(await noteBetween(context, ID, { from: 0, to: 1 })).text).toContain("Level");
    const back = await returnTo(context, ID, { baseRevision: 1, revision: 0 });
    expect(refused(back).code).toBe("refused");
    expect(!back.ok && back.error.message).toContain("left-behind");
    expect((await now()).revision).toBe(1);
  });

  it("stands in the order in which it was done, also where the clock went backwards", async () => {
    const { project } = await now();
    const strip = project.strips.find(({ kind }) => kind === "audio")!;
    const at = (day: string) => ({ ...context, now: () => new Date(`${day}T10:00:00.000Z`) });
    let { level } = strip;
    for (const [n, day] of ["2026-11-24", "2020-01-05", "2026-11-25"].entries()) {
      const next = { fader: -10 - n, mute: false };
      const steps = [...changePart({ ...strip, level }, "level", next, context.mint)];
      value(await changeProject(at(day), ID, { baseRevision: n, label: `Level ${n}`, steps }));
      level = next;
    }
    const labels = async (q: string) => value(await listHistory(context, ID, { q })).items.map(({ label }) => label);
    expect(await labels("")).toEqual(["Level 2", "Level 1", "Level 0"]);
    expect(await labels("before 2021-01-01")).toEqual(["Level 1"]);
    const faders = [1, 2, 3].map(async (n) => {
      const then = value(await getRevision(context, ID, n)).project;
      return then.strips.find(({ id }) => id === strip.id)!.level.fader;
    });
    expect(await Promise.all(faders)).toEqual([-10, -11, -12]);
    value(await undo(context, ID, 3));
    expect((await now()).project.strips.find(({ id }) => id === strip.id)!.level.fader).toBe(-11);
  });
});
