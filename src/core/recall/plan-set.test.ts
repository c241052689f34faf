import { describe, expect, it } from "vitest";
import type { Content } from "../presets/preset";
import { findContentProblem } from "../presets/whole";
import { saveStrip, saveStrips } from "../presets/save";
import { depthOf, ledgerOrder, orderOfKept } from "../projects/nesting";
import { type Project, findStrip, getStrip } from "../projects/project";
import type { Strip } from "../strips/strip";
import { createStrip, offeredParts } from "../strips/strip";
import { PARTS, type PartName } from "../strips/parts";
import type { StripKind } from "../documents/strip-kinds";
import { applySteps } from "./apply";
import { planRecall } from "./plan";
import type { Plan, SetTargets } from "./plan-shape";
import { counter } from "./testing/generators";

/* A kit of drums with its group and its room, as one preset, onto strips of other projects. */

const send = (to: string, level: number) => ({
  key: `to-${to}`,
  to: { strip: to },
  tap: "post" as const,
  level,
  pan: 0,
  on: true,
});
/** "kick audio" by its id and kind. */
const strip = (what: string, name: string, to: string | null, rest: Partial<Strip> = {}): Strip => {
  const [id, kind] = what.split(" ") as [string, StripKind];
  return { ...createStrip(id, kind, { name }, to === null ? { hardware: "Out 1–2" } : { strip: to }), ...rest };
};
const project = (strips: readonly Strip[]): Project => ({
  schema: 1,
  id: "project",
  name: "Weir Song",
  artist: "Copper Heron",
  client: "Copper Heron",
  song: "Weir Song",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [...strips],
});
const level = (fader: number) => ({ level: { fader, mute: false } });

const HERE = project([
  strip("kit group", "Drums", "main", level(-2)),
  strip("kick audio", "Kick", "kit", level(-3)),
  strip("snare audio", "Snare", "kit", { ...level(-5), sends: [send("room", -18)] }),
  strip("ohl audio", "Overhead left", "kit", { ...level(-9), pan: { pan: -80, width: 100 } }),
  strip("room return", "Drum room", "main", level(-12)),
  strip("main main", "Main", null),
]);
const parts = (of: Strip) => ({ strip: of, parts: offeredParts(of) });
const KIT = saveStrips(HERE, HERE.strips.filter(({ id }) => id !== "main").map(parts), "set");

/** The same drums under other names, in another order, with others beside them. */
const THERE = project([
  strip("out main", "Stereo", null),
  strip("a audio", "OH L", "d"),
  strip("vox audio", "Lead vox", "out"),
  strip("b audio", "SD", "d"),
  strip("c audio", "Bass Drum", "d"),
  strip("d group", "Drum bus", "out"),
  strip("e return", "Room verb", "out"),
]);
const BLANK = project([strip("out main", "Stereo", null)]);

interface Asked {
  readonly content?: Content;
  readonly onto?: SetTargets["onto"];
  readonly among?: readonly string[] | null;
  readonly only?: readonly PartName[];
  readonly answers?: Readonly<Record<string, string>>;
}

const planFor = (
  at: Project,
  { content = KIT, onto = "matched", among = null, only = PARTS, answers = {} }: Asked = {},
): { plan: Plan; after: Project } => {
  const plan = planRecall({
    project: at,
    requests: [
      {
        source: { content, from: null, name: "Kit" },
        parts: only,
        targets: { set: { onto, among, after: at.strips.at(-1)?.id ?? null } },
        mode: "replace",
      },
    ],
    except: [],
    answers,
    mint: counter("new"),
  });
  const applied = applySteps(at, plan.steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  return { plan, after: applied.value };
};
const wentTo = ({ matches }: Plan) => Object.fromEntries(matches.map(({ saved, answer }) => [saved, answer]));

describe("a set of strips", () => {
  it("finds the same drums under other names, and what leads from one to another leads so there", () => {
    const { plan, after } = planFor(THERE);
    expect(wentTo(plan)).toEqual({
      kit: "strip:d",
      kick: "strip:c",
      snare: "strip:b",
      ohl: "strip:a",
      room: "strip:e",
    });
    expect(plan.questions).toEqual([]);
    expect(getStrip(after, "b").sends.map(({ to }) => to)).toEqual([{ strip: "e" }]);
    expect(getStrip(after, "a").pan.pan).toBe(-80);
    expect(getStrip(after, "b").routing.output).toEqual({ strip: "d" });
    expect(getStrip(after, "b").look.name).toBe("Snare");
    expect(getStrip(after, "vox")).toBe(getStrip(THERE, "vox"));
  });

  it("brings only its sends, where only these are asked for", () => {
    const { plan, after } = planFor(THERE, { only: ["sends"] });
    expect(plan.steps.map(({ kind }) => kind)).toEqual(["placeSend"]);
    expect(getStrip(after, "b").sends[0]?.level).toBe(-18);
    expect(after.strips.map((s) => s.level)).toEqual(THERE.strips.map((s) => s.level));
  });

  it("makes all its strips in a blank project, in their order, in their group", () => {
    const { plan, after } = planFor(BLANK, { onto: "new" });
    expect(plan.questions).toEqual([]);
    expect(after.strips.map(({ look }) => look.name)).toEqual([
      "Stereo",
      "Drums",
      "Kick",
      "Snare",
      "Overhead left",
      "Drum room",
    ]);
    const [, group, kick, snare, , room] = after.strips;
    expect(kick?.routing.output).toEqual({ strip: group?.id });
    expect(group?.routing.output).toEqual({ strip: "out" });
    expect(snare?.sends.map(({ to }) => to)).toEqual([{ strip: room?.id }]);
    expect(plan.rows.every(({ isNew }) => isNew)).toBe(true);
  });

  it("asks of each that finds none; it is made, left out, or goes to another", () => {
    const few = project(THERE.strips.filter(({ id }) => id !== "b" && id !== "e"));
    const asked = planFor(few);
    expect(asked.plan.questions.map(({ id, text, answer }) => [id, text, answer])).toEqual([
      ["match:0:snare", "Nothing here is like “Snare”.", "new"],
      ["match:0:room", "Nothing here is like “Drum room”.", "new"],
    ]);
    const out = planFor(few, { answers: { "match:0:snare": "out", "match:0:room": "out" } });
    expect(out.after.strips).toHaveLength(few.strips.length);
    const onto = planFor(few, { answers: { "match:0:snare": "strip:vox" } });
    expect(getStrip(onto.after, "vox").level.fader).toBe(-5);
    // The send of the snare goes to the room that is made for it.
    const [to] = getStrip(onto.after, "vox").sends.map((one) => ("strip" in one.to ? one.to.strip : ""));
    expect(findStrip(onto.after, to!)?.look.name).toBe("Drum room");
  });

  it("looks for them only among the strips that are chosen", () => {
    const { plan } = planFor(THERE, { among: ["b", "vox"] });
    expect(wentTo(plan)).toEqual({ kit: "new", kick: "new", snare: "strip:b", ohl: "new", room: "new" });
  });

  it("never gives two of them one strip, and keeps to what can be", () => {
    const { plan } = planFor(THERE, { answers: { "match:0:kick": "strip:b", "match:0:ohl": "strip:d" } });
    const strips = plan.matches.map((match) => match.strip);
    expect(new Set(strips).size).toBe(strips.length);
    // An overhead is no bus: it stays where it was found.
    expect(wentTo(plan)).toMatchObject({ kick: "strip:b", snare: "new", ohl: "strip:a" });
  });

  it("can be left out strip by strip, and taken in again", () => {
    const off = planRecall({
      project: BLANK,
      requests: [
        {
          source: { content: KIT, from: null, name: "Kit" },
          parts: PARTS,
          targets: { set: { onto: "new", among: null, after: "out" } },
          mode: "replace",
        },
      ],
      except: [{ strip: "match:0:kick" }, { strip: "match:0:snare", part: "sends" }],
      answers: {},
      mint: counter("new"),
    });
    const made = off.steps.flatMap((step) => (step.kind === "placeStrip" && step.to ? [step.to.strip.look.name] : []));
    expect(made).toEqual(["Drums", "Snare", "Overhead left", "Drum room"]);
    expect(off.steps.some(({ kind }) => kind === "placeSend")).toBe(false);
    const row = off.rows.find(({ key }) => key === "match:0:kick");
    expect(row?.parts.every(({ on }) => !on)).toBe(true);
  });
});

describe("a set with a folder in it", () => {
  const within = (folder: string) => ({ folder: { strip: folder } });
  const tree = project([
    strip("oh audio", "Overhead", "main", { look: { name: "Overhead", ...within("cym") } }),
    strip("top folder", "Takes", null),
    strip("cym folder", "Cymbals", null, { look: { name: "Cymbals", ...within("top") } }),
    strip("ride audio", "Ride", "main", { look: { name: "Ride", ...within("cym") } }),
    strip("main main", "Main", null),
  ]);
  const saved = saveStrips(tree, tree.strips.filter(({ id }) => id !== "main").map(parts), "set");
  const bring = (at: Project, only: readonly PartName[] = PARTS) => planFor(at, { content: saved, only });
  const nested = (at: Project) => ledgerOrder(at).map((one) => `${">".repeat(depthOf(at, one))}${one.look.name}`);

  it("makes it with what stands in it, where it is not here, in the same order", () => {
    const { plan, after } = bring(BLANK);
    expect(nested(after)).toEqual(["Stereo", "Takes", ">Cymbals", ">>Overhead", ">>Ride"]);
    expect(plan.notes).toEqual([]);
  });

  it("finds it by its name, and puts strips that are here into it; nothing sounds otherwise by that", () => {
    const here = project([
      strip("out main", "Stereo", null),
      strip("f folder", "Cymbals", null),
      strip("x audio", "Overhead", "out", level(-7)),
      strip("y audio", "Ride", "out"),
    ]);
    const { after } = bring(here, ["look"]);
    expect(nested(after)).toEqual(["Stereo", "Cymbals", ">Overhead", ">Ride", "Takes"]);
    const heard = ({ strips }: Project) =>
      strips.flatMap(({ look: _, ...rest }) => (rest.kind === "folder" ? [] : [rest]));
    expect(heard(after)).toEqual(heard(here));
  });

  it("is told in the order of the ledger, and refused where it stands within itself", () => {
    if (saved.kind !== "set") throw new Error("It is a set.");
    const told = orderOfKept(saved.strips).map(({ strip: { name }, depth }) => `${">".repeat(depth)}${name}`);
    expect(told).toEqual(["Takes", ">Cymbals", ">>Overhead", ">>Ride"]);
    expect(findContentProblem(saved)).toBeNull();
    const looped = saved.strips.map((one) =>
      one.id === "top" ? { ...one, look: { name: "Takes", folder: { strip: "cym" } } } : one,
    );
    expect(findContentProblem({ ...saved, strips: looped })?.message).toMatch(/ stands within itself\.$/);
  });

  it("is not made where only what sounds is taken", () => {
    const { after } = bring(BLANK, ["level"]);
    expect(after.strips.map(({ kind }) => kind)).not.toContain("folder");
  });
});

describe("a strip from a folder", () => {
  const saved = saveStrip(
    project([
      strip("cym folder", "Cymbals", null),
      strip("oh audio", "Overhead", null, { look: { name: "Overhead", folder: { strip: "cym" } } }),
    ]),
    strip("oh audio", "Overhead", null, { look: { name: "Overhead", folder: { strip: "cym" } } }),
    ["look", "level"],
  );
  const bring = (at: Project, target: string) => {
    const plan = planRecall({
      project: at,
      requests: [
        {
          source: { content: saved, from: null, name: "Overhead" },
          parts: PARTS,
          targets: { strips: [target] },
          mode: "replace",
        },
      ],
      except: [],
      answers: {},
      mint: counter(),
    });
    const applied = applySteps(at, plan.steps);
    if (!applied.ok) throw new Error(applied.error.reason);
    return { plan, look: getStrip(applied.value, target).look };
  };

  it("stands in that of the same name here; where there is none it stands in none, and nobody is asked", () => {
    const here = project([strip("a audio", "A", null), strip("f folder", "Cymbals", null)]);
    expect(bring(here, "a").look).toEqual({ name: "Overhead", folder: { strip: "f" } });
    const { plan, look } = bring(project([strip("a audio", "A", null)]), "a");
    expect(look).toEqual({ name: "Overhead" });
    expect([plan.questions, plan.notes]).toEqual([[], []]);
  });

  it("stands in one that comes along with a set in the same plan, so that a second time nothing is left to do", () => {
    const at = project([strip("main main", "Main", null), strip("a audio", "A", "main")]);
    const set = saveStrips(
      project([strip("cym folder", "Cymbals", null)]),
      [parts(strip("cym folder", "Cymbals", null))],
      "set",
    );
    const alone = { content: saved, from: null, name: "Overhead" };
    const requests = [
      { source: alone, parts: PARTS, targets: { strips: ["a"] }, mode: "replace" as const },
      {
        source: { content: set, from: null, name: "Folder" },
        parts: PARTS,
        targets: { set: { onto: "matched" as const, among: null, after: null } },
        mode: "replace" as const,
      },
    ];
    const plan = (here: Project) =>
      planRecall({ project: here, requests, except: [], answers: {}, mint: counter("new") });
    const once = applySteps(at, plan(at).steps);
    if (!once.ok) throw new Error(once.error.reason);
    const folder = once.value.strips.find(({ kind }) => kind === "folder")!;
    expect(getStrip(once.value, "a").look).toEqual({ name: "Overhead", folder: { strip: folder.id } });
    expect(plan(once.value).steps).toEqual([]);
  });

  it("leaves a folder as it sounds, that is: not at all, and says so once", () => {
    const { plan, look } = bring(project([strip("f folder", "Cymbals", null)]), "f");
    expect(look).toEqual({ name: "Overhead" });
    expect(plan.notes).toEqual([{ strip: "f", text: "Overhead is a folder and carries no sound." }]);
  });
});
