import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { ProjectSchema } from "@/core/projects/schema";
import type { Project } from "@/core/projects/project";
import { saveStrips } from "@/core/presets/save";
import { changePart } from "@/core/recall/arrange";
import { counter } from "@/core/recall/testing/generators";
import { PARTS } from "@/core/strips/parts";
import type { Send } from "@/core/strips/parts/sends";
import { type Strip, createStrip, offeredParts } from "@/core/strips/strip";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { value } from "../testing";
import { planFor } from "./plans";
import { changeProject } from "./projects/change";
import { getProject, makeProject } from "./projects/read";
import { undo } from "./projects/walk";

/* What no project can hold, and how much one can. Whatever is refused is refused in words, and the project is as before. */

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-bad-"));
  context = await openContext(folder);
});
afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const MAIN = createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" });
const send = (to: string, key = to): Send => ({ key, to: { strip: to }, tap: "post", level: -12, pan: 0, on: true });
const audio = (id: string, to = "main", more: Partial<Strip> = {}): Strip => ({
  ...createStrip(id, "audio", { name: id }, { strip: to }),
  ...more,
});
const bus = (kind: "group" | "return", id: string, to = "main", more: Partial<Strip> = {}): Strip => ({
  ...createStrip(id, kind, { name: id }, { strip: to }),
  ...more,
});
const keyed = (by: string): Strip["inserts"] => ({
  nodes: [
    {
      type: "processor",
      key: "gate",
      model: "gate",
      enabled: true,
      values: {},
      keyInput: { strip: { strip: by }, tap: "post" },
    },
  ],
  macros: [],
});
const projectOf = (...strips: readonly Strip[]): Omit<Project, "id" | "schema"> => ({
  name: "Weir Song",
  artist: "Copper Heron",
  client: "",
  song: "Weir Song",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [...strips, MAIN],
});

const WRONG: readonly (readonly [what: string, strips: readonly Strip[], words: RegExp])[] = [
  ["a loop by outputs", [bus("group", "a", "b"), bus("group", "b", "a")], /A loop in the signal flow: .*a/],
  [
    "a loop by sends",
    [bus("return", "a", "main", { sends: [send("b")] }), bus("return", "b", "main", { sends: [send("a")] })],
    /A loop in the signal flow/,
  ],
  ["a send to itself", [bus("return", "a", "main", { sends: [send("a")] })], /A loop in the signal flow/],
  [
    "a loop by a key and an output",
    [audio("x", "g"), bus("group", "g"), audio("k", "g", { inserts: keyed("g") })],
    /A loop in the signal flow/,
  ],
  ["a group inside itself", [bus("group", "g", "g")], /A loop in the signal flow: g → g/],
  ["an output that leads nowhere", [audio("x", "gone")], /x goes to a strip that is not here/],
  ["a send that leads nowhere", [audio("x", "main", { sends: [send("gone")] })], /x sends to a strip that is not here/],
  ["a key that is nowhere", [audio("x", "main", { inserts: keyed("gone") })], /x is keyed by a strip that is not here/],
  [
    "an instrument output that is nowhere",
    [audio("x", "main", { source: { type: "output", channels: "stereo", strip: { strip: "gone" }, output: 1 } })],
    /x hears a strip that is not here/,
  ],
  [
    "a model nobody knows",
    [
      audio("x", "main", {
        inserts: { nodes: [{ ...keyed("x").nodes[0]!, model: "wood-press" } as never], macros: [] },
      }),
    ],
    /No model is called “wood-press” here/,
  ],
  ["two strips of one id", [audio("x"), audio("x")], /The id “x” is used twice/],
];

describe("what no project can hold", () => {
  it.each(WRONG)("%s is refused where a project is made of it", async (_, strips, words) => {
    const refused = await makeProject(context, { project: projectOf(...strips) });
    expect(refused).toMatchObject({ ok: false, error: { message: expect.stringMatching(words) as string } });
  });

  it.each(WRONG)(
    "%s is refused where a change would lead to it, and nothing has changed",
    async (what, strips, words) => {
      if (what === "two strips of one id") return;
      const { project } = value(await makeProject(context, { project: projectOf() }));
      // One after the other, with what leads on only behind them all.
      const bare = strips.map((strip) => ({
        ...strip,
        inserts: MAIN.inserts,
        sends: [],
        routing: { output: { strip: "main" } },
      }));
      const before = value(
        await changeProject(context, project.id, {
          baseRevision: 0,
          label: "Strips",
          steps: bare.map((strip) => ({
            id: `p${strip.id}`,
            strip: strip.id,
            kind: "placeStrip",
            from: null,
            to: {
              strip: { ...strip, source: strip.source.type === "output" ? audio("y").source : strip.source },
              after: null,
            },
          })),
        }),
      );
      const mint = counter();
      const steps = strips.flatMap((strip) => {
        const own = before.project!.strips.find(({ id }) => id === strip.id)!;
        return (["routing", "inserts", "source", "sends"] as const).flatMap((part) =>
          changePart(own, part, strip[part], mint),
        );
      });
      const refused = await changeProject(context, project.id, {
        baseRevision: 1,
        label: "Wrong",
        steps,
      });
      expect(refused).toMatchObject({ ok: false, error: { message: expect.stringMatching(words) as string } });
      const now = value(await getProject(context, project.id));
      expect([now.revision, now.project]).toEqual([1, before.project]);
    },
  );

  it("10,000 sends of one strip are refused by the schema of a project", () => {
    const sends = Array.from({ length: 10_000 }, (_, n) => send("r", `k${n}`));
    const given = { ...projectOf(audio("x", "main", { sends }), bus("return", "r")), id: "p", schema: 1 };
    const read = ProjectSchema.safeParse(given);
    expect(read.error?.issues[0]).toMatchObject({ path: ["strips", 0, "sends"], code: "too_big" });
  });
});

describe("how much a project can hold", () => {
  it("1,000 strips with 10,000 sends are made, planned, changed and taken back whole", async () => {
    const returns = Array.from({ length: 20 }, (_, n) => bus("return", `r${n}`));
    const strips = Array.from({ length: 979 }, (_, n) =>
      audio(`s${n}`, "main", { sends: Array.from({ length: 11 }, (_, at) => send(`r${(n + at) % 20}`)) }),
    );
    const made = value(await makeProject(context, { project: projectOf(...strips, ...returns) }));
    expect(made.project.strips.flatMap(({ sends }) => sends).length).toBeGreaterThan(10_000);
    const { id } = made.project;
    const content = saveStrips(
      made.project,
      made.project.strips
        .slice(0, 12)
        .map((strip) => ({ strip: { ...strip, level: { fader: -6, mute: false } }, parts: offeredParts(strip) })),
      "set",
    );
    // As it is saved, each at −6 dB.
    const louder = {
      ...content,
      strips: ("strips" in content ? content.strips : []).map((s) => ({ ...s, level: { fader: -6, mute: false } })),
    };
    const { plan } = value(
      await planFor(context, id, {
        requests: [
          {
            source: { content: louder as typeof content, name: "Twelve" },
            parts: [...PARTS],
            targets: { set: { onto: "matched", among: null, after: null } },
            mode: "replace",
          },
        ],
        except: [],
        answers: {},
      }),
    );
    expect(plan.matches.map(({ answer }) => answer)).toEqual(
      made.project.strips.slice(0, 12).map((s) => `strip:${s.id}`),
    );
    value(await changeProject(context, id, { baseRevision: 0, label: "Twelve", steps: plan.steps }));
    expect(value(await getProject(context, id)).project.strips[3]!.level.fader).toBe(-6);
    value(await undo(context, id, 1));
    expect(value(await getProject(context, id)).project).toEqual(made.project);
  }, 60_000);
});

describe("two windows that apply at once", () => {
  it("one is applied whole, the other is told, and a plan of before is refused", async () => {
    const { project } = value(await makeProject(context, { project: projectOf(audio("x"), audio("y")) }));
    const plan = async (fader: number) => {
      const strip = { kind: "audio" as const, level: { fader, mute: false }, pan: { pan: fader, width: 100 } };
      const request = {
        requests: [
          {
            source: { content: { kind: "strip" as const, schema: 1 as const, strip }, name: "Level" },
            parts: ["level" as const, "pan" as const],
            targets: { strips: ["x", "y"] },
            mode: "replace" as const,
          },
        ],
        except: [],
        answers: {},
        at: 0,
      };
      return { request, ...value(await planFor(context, project.id, request)) };
    };
    const plans = [await plan(-6), await plan(-9)];
    const made = await Promise.all(
      plans.map(({ plan: { steps } }) =>
        changeProject(context, project.id, { baseRevision: 0, label: "Apply", steps }),
      ),
    );
    expect(made.map(({ ok }) => ok).toSorted()).toEqual([false, true]);
    const won = made.findIndex(({ ok }) => ok);
    expect(made[1 - won]).toMatchObject({ error: { message: expect.stringMatching(/./) as string } });
    const now = value(await getProject(context, project.id));
    expect(now.revision).toBe(1);
    const fader = [-6, -9][won];
    for (const id of ["x", "y"])
      expect(now.project.strips.find((s) => s.id === id)).toMatchObject({ level: { fader }, pan: { pan: fader } });
    expect(await planFor(context, project.id, plans[0]!.request)).toMatchObject({
      ok: false,
      error: { code: "stale", path: "at" },
    });
    // A plan for a strip that is gone says which.
    const gone = { ...plans[0]!.request, at: 1 };
    gone.requests[0]!.targets.strips = ["x", "gone"];
    expect(await planFor(context, project.id, gone)).toMatchObject({
      ok: false,
      error: { message: "The strip “gone” is not in “Weir Song”.", path: "requests[0].targets.strips" },
    });
  });
});
