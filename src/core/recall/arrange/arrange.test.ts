import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fingerprint } from "../../presets/fingerprint";
import { saveStrip } from "../../presets/save";
import { depthOf, folderOf, groupOf, ledgerOrder, parentOf } from "../../projects/nesting";
import { type Project, getStrip } from "../../projects/project";
import { findProjectProblem } from "../../projects/problems";
import { layerOf } from "../../strips/parts/source";
import { type Strip, offeredParts } from "../../strips/strip";
import { applySteps } from "../apply";
import { invertSteps } from "../step";
import type { Step } from "../steps";
import { cellOf } from "../steps";
import { counter, someProject } from "../testing/generators";
import * as arrange from "../arrange";

const RUNS = { numRuns: 120 };
const mint = () => counter("new");

/** The project behind the steps; applying the inverse must bring back the one before, and no fault may have come about. */
function after(project: Project, steps: readonly Step[]): Project {
  const applied = applySteps(project, steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  expect(applySteps(applied.value, invertSteps(steps))).toEqual({ ok: true, value: project });
  expect(findProjectProblem(applied.value)).toBeNull();
  return applied.value;
}

const some = someProject.chain((project) =>
  fc.record({
    project: fc.constant(project),
    ids: fc.subarray(
      project.strips.map(({ id }) => id),
      { minLength: 1 },
    ),
    other: fc.constantFrom(null, ...project.strips.map(({ id }) => id)),
    within: fc.constantFrom(null, "g1", "g2", "f1", "f2"),
  }),
);
const namesIn = (project: Project) => ledgerOrder(project).map(({ id }) => id);

/** What stands within a strip, and itself. */
const withWithin = (project: Project, ids: readonly string[]): ReadonlySet<string> =>
  new Set(
    project.strips
      .filter((strip) => {
        for (let at: typeof strip | null = strip; at; at = parentOf(project, at)) if (ids.includes(at.id)) return true;
        return false;
      })
      .map(({ id }) => id),
  );

/** Those of some that stand in no other of them. */
const topOf = (project: Project, ids: readonly string[]): readonly string[] =>
  ids.filter(
    (one) =>
      !withWithin(
        project,
        ids.filter((other) => other !== one),
      ).has(one),
  );

describe("strips that are moved", () => {
  it("stand side by side at their new place, with what is in them; all else keeps its order", () => {
    const done = { moved: 0, refused: 0, folders: 0 };
    fc.assert(
      fc.property(some, ({ project, ids, other, within }) => {
        const steps = arrange.moveStrips(project, ids, { within, after: other }, mint());
        if (!steps.ok) {
          done.refused += 1;
          expect(steps.error).toMatch(/cannot|goes to no group|stands in no group/);
          return;
        }
        done.moved += 1;
        const then = after(project, steps.value);
        const along = withWithin(project, ids);
        const top = topOf(project, ids);
        // No sound goes elsewhere by a folder: what leaves one goes on to its group, and stands there.
        const isOfFolder = (id: string) =>
          /^f/.test(within ?? "") || (within === null && getStrip(project, id).look.folder);
        for (const id of top.filter(isOfFolder)) {
          done.folders += 1;
          expect(getStrip(then, id).routing).toBe(getStrip(project, id).routing);
        }
        if (within === null && top.some((id) => getStrip(project, id).look.folder && groupOf(then, getStrip(then, id))))
          return;
        const rest = (order: readonly string[]) => order.filter((id) => !along.has(id));
        expect(rest(namesIn(then))).toEqual(rest(namesIn(project)));
        const places = namesIn(then).flatMap((id, at) => (along.has(id) ? [at] : []));
        expect(places.at(-1)! - places[0]!).toBe(places.length - 1);
        for (const id of top) expect(parentOf(then, getStrip(then, id))?.id ?? null).toBe(within);
        // Nothing is changed but where they stand and where they go.
        for (const step of steps.value)
          expect(["routing", "look"].includes(cellOf(step).part ?? "") || step.kind === "placeStrip").toBe(true);
      }),
      RUNS,
    );
    expect(done.moved).toBeGreaterThan(40);
    expect(done.refused).toBeGreaterThan(10);
    expect(done.folders).toBeGreaterThan(20);
  });

  it("go one place down and up again, and stay at the ends", () => {
    fc.assert(
      fc.property(someProject, fc.nat(), (project, n) => {
        const { id } = project.strips[n % project.strips.length]!;
        const siblings = ledgerOrder(project).filter(
          (strip) => parentOf(project, strip)?.id === parentOf(project, getStrip(project, id))?.id,
        );
        const all = new Set(project.strips.map((strip) => strip.id));
        const down = arrange.nudgeStrips(project, [id], { by: 1, among: all }, mint());
        const isLast = siblings.at(-1)?.id === id;
        expect(down.ok && down.value.length).toBe(isLast ? 0 : 1);
        if (!down.ok || isLast) return;
        const lower = after(project, down.value);
        const up = arrange.nudgeStrips(lower, [id], { by: -1, among: all }, mint());
        expect(namesIn(after(lower, up.ok ? up.value : []))).toEqual(namesIn(project));
      }),
      RUNS,
    );
  });

  it("passes over those that are not shown: among the others it is one place further", () => {
    fc.assert(
      fc.property(someProject, fc.nat(), fc.infiniteStream(fc.boolean()), (project, n, chance) => {
        const { id } = project.strips[n % project.strips.length]!;
        const among = new Set(
          project.strips.filter((strip) => strip.id === id || chance.next().value).map((s) => s.id),
        );
        const above = (of: Project) => parentOf(of, getStrip(of, id))?.id;
        const beside = (of: Project) =>
          ledgerOrder(of)
            .filter((strip) => among.has(strip.id) && parentOf(of, strip)?.id === above(project))
            .map((strip) => strip.id);
        const down = arrange.nudgeStrips(project, [id], { by: 1, among }, mint());
        const [before, then] = [beside(project), beside(down.ok ? after(project, down.value) : project)];
        expect(then.indexOf(id)).toBe(Math.min(before.length - 1, before.indexOf(id) + 1));
        expect(then.filter((one) => one !== id)).toEqual(before.filter((one) => one !== id));
      }),
      RUNS,
    );
  });

  it("go into the group or the folder right above, and out of it to where they were", () => {
    fc.assert(
      fc.property(someProject, fc.nat(), (project, n) => {
        const strip = project.strips[n % project.strips.length]!;
        const within = arrange.putIntoAbove(project, [strip.id], mint());
        if (!within.ok) return;
        const inside = after(project, within.value);
        expect(depthOf(inside, getStrip(inside, strip.id))).toBe(depthOf(project, strip) + 1);
        const out = arrange.takeOut(inside, [strip.id], mint());
        expect(namesIn(after(inside, out.ok ? out.value : []))).toEqual(namesIn(project));
      }),
      RUNS,
    );
  });
});

describe("strips that are grouped", () => {
  it("stand in a new group where the first stood, which goes where that went; the group taken out leaves all as it was", () => {
    fc.assert(
      fc.property(some, ({ project, ids }) => {
        const members = ids.filter((id) => id !== "main");
        const grouped = arrange.groupStrips(project, members, "Choir", mint());
        const top = topOf(project, members);
        if (top.length === 0 || top.some((id) => getStrip(project, id).kind === "folder")) {
          expect(grouped.ok).toBe(false);
          return;
        }
        if (!grouped.ok) throw new Error(grouped.error);
        const then = after(project, grouped.value.steps);
        const group = getStrip(then, grouped.value.holder);
        expect(group.look.name).toBe("Choir");
        for (const id of top) expect(groupOf(then, getStrip(then, id))?.id).toBe(group.id);
        const first = project.strips.find(({ id }) => top.includes(id))!;
        expect(group.routing).toEqual(first.routing);
        expect(group.look.folder).toEqual(first.look.folder);
        if (top.length > 1 || first.look.folder) return;
        expect(without(then, [group.id])).toEqual(project);
      }),
      RUNS,
    );
  });

  it("are not grouped around the main output", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        expect(arrange.groupStrips(project, ["main"], "All", mint()).ok).toBe(false);
      }),
      { numRuns: 20 },
    );
  });
});

describe("strips that are put into a folder", () => {
  it("stand in a new one, in the folder in which the first stood, and sound as before; taken out it leaves all as it was", () => {
    fc.assert(
      fc.property(some, ({ project, ids }) => {
        const held = arrange.folderStrips(project, ids, "Choir", mint());
        if (!held.ok) throw new Error(held.error);
        const then = after(project, held.value.steps);
        const folder = getStrip(then, held.value.holder);
        const top = topOf(project, ids);
        for (const id of top) expect(parentOf(then, getStrip(then, id))?.id).toBe(folder.id);
        expect(folderOf(then, folder)?.kind ?? "folder").toBe("folder");
        for (const strip of project.strips) {
          const { look: _, ...sound } = getStrip(then, strip.id);
          const { look: __, ...before } = strip;
          expect(sound).toEqual(before);
        }
        const [only] = top;
        const above = only !== undefined && parentOf(project, getStrip(project, only));
        if (top.length > 1 || (above && above.kind === "group")) return;
        expect(without(then, [folder.id])).toEqual(project);
      }),
      RUNS,
    );
  });

  it("never stand within themselves", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        for (const [strip, within] of [
          ["f1", "f2"],
          ["f1", "f1"],
          ["g1", "g2"],
        ] as const) {
          const moved = arrange.moveStrips(project, [strip], { within, after: null }, mint());
          expect(moved.ok ? "" : moved.error).toMatch(/cannot/);
        }
      }),
      { numRuns: 20 },
    );
  });
});

describe("strips that are duplicated", () => {
  it("sound the same, under a free name, and lead to one another as the first did", () => {
    fc.assert(
      fc.property(some, ({ project, ids }) => {
        const { steps, strips } = arrange.duplicateStrips(project, ids, mint());
        const then = after(project, steps);
        const firsts = project.strips.filter(({ id }) => ids.includes(id) && id !== "main");
        expect(strips).toHaveLength(firsts.length);
        expect(then.strips.filter(({ id }) => !strips.includes(id))).toEqual(project.strips);
        const names = then.strips.map(({ look }) => look.name);
        for (const [at, first] of firsts.entries()) {
          const copy = getStrip(then, strips[at]!);
          expect(names.filter((name) => name === copy.look.name)).toHaveLength(1);
          const { output } = first.routing;
          const to = output && "strip" in output ? firsts.findIndex(({ id }) => id === output.strip) : -1;
          expect(copy.routing.output).toEqual(to < 0 ? output : { strip: strips[to] });
          // What leads to no copy sounds as the first, to the last value.
          if (ids.length > 1) continue;
          const saved = (strip: typeof copy) =>
            fingerprint(saveStrip(then, { ...strip, look: first.look }, offeredParts(first)));
          if (offeredParts(first).length > 0) expect(saved(copy)).toBe(saved(first));
        }
      }),
      RUNS,
    );
  });
});

const heirsOf =
  (project: Project, ids: readonly string[], pick = (b: arrange.Bereft): string | null => b.heir): arrange.Heirs =>
  (of, part) => {
    const bereft = arrange.findBereft(project, ids).find((b) => b.of === of && b.part === part);
    return bereft ? pick(bereft) : null;
  };

/** The project without some strips; where the heirs close a loop together, null. */
function without(project: Project, ids: readonly string[], heirs = heirsOf(project, ids)): Project | null {
  const steps = arrange.removeStrips(project, ids, heirs, mint());
  if (!steps.ok) expect(steps.error).toMatch(/^That would be a loop: /);
  return steps.ok ? after(project, steps.value) : null;
}

describe("strips that are taken out", () => {
  it("leave nothing that leads to them, whichever of those that are offered takes their place", () => {
    const met = new Set<string>();
    fc.assert(
      fc.property(some, fc.nat(), ({ project, ids }, n) => {
        for (const { part } of arrange.findBereft(project, ids)) met.add(part);
        const pick = ({ heirs }: arrange.Bereft) => [null, ...heirs.map(({ id }) => id)][n % (heirs.length + 1)]!;
        const kept = project.strips.map(({ id }) => id).filter((id) => !ids.includes(id));
        expect(without(project, ids)?.strips.map(({ id }) => id)).toEqual(kept);
        const picked = without(project, ids, heirsOf(project, ids, pick));
        if (picked) expect(picked.strips.map(({ id }) => id)).toEqual(kept);
      }),
      RUNS,
    );
    expect([...met].toSorted()).toEqual(["inserts", "look", "routing", "sends", "source"]);
  });

  it("hand what went to them on to where they went", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const then = without(project, ["g1", "g2"])!;
        for (const strip of then.strips.filter(({ kind }) => kind !== "main" && kind !== "folder"))
          expect(strip.routing.output).toEqual({ strip: "main" });
      }),
      RUNS,
    );
  });

  it("touch nothing that does not lead to them", () => {
    fc.assert(
      fc.property(some, ({ project, ids }) => {
        const then = without(project, ids, () => null)!;
        const touched = arrange.findBereft(project, ids).flatMap(({ strips }) => strips.map(({ id }) => id));
        for (const strip of then.strips) if (!touched.includes(strip.id)) expect(project.strips).toContain(strip);
      }),
      RUNS,
    );
  });
});

describe("the sends of strips", () => {
  it("are made once to each bus, set and removed together, and never close a loop where one is offered", () => {
    fc.assert(
      fc.property(some, ({ project, ids }) => {
        const strips = project.strips.filter(({ id, kind }) => ids.includes(id) && kind !== "folder");
        if (strips.length === 0) return;
        const isTheirs = ({ id }: Pick<Strip, "id">) => strips.some((strip) => strip.id === id);
        for (const { id: to } of arrange.sendTargetsFor(project, strips)) {
          const which = { strips, to, mint: mint() };
          const sent = after(project, arrange.addSends(which));
          const now = sent.strips.filter(isTheirs);
          for (const strip of now) expect(arrange.findSend(strip, { to })).not.toBeNull();
          expect(arrange.addSends({ ...which, strips: now })).toEqual([]);
          const set = after(
            sent,
            arrange.setSends({ ...which, strips: now }, ({ level }) => ({ level: level / 2, tap: "pre" })),
          );
          for (const [at, strip] of set.strips.filter(isTheirs).entries()) {
            const was = arrange.findSend(now[at]!, { to })!;
            expect(arrange.findSend(strip, { to })).toEqual({ ...was, level: was.level / 2, tap: "pre" });
          }
          const none = after(sent, arrange.removeSends({ ...which, strips: now }));
          for (const strip of none.strips) {
            const before = getStrip(sent, strip.id).sends.length;
            expect(strip.sends).toHaveLength(before - (isTheirs(strip) ? 1 : 0));
          }
        }
      }),
      RUNS,
    );
  });
});

describe("the outputs of an instrument", () => {
  it("are each received by a strip of its own, once, and by others only where that closes no loop", () => {
    const met = { received: 0, offered: 0 };
    fc.assert(
      fc.property(someProject, ({ strips, ...rest }) => {
        const kit = {
          ...layerOf({ type: "processor", key: "kit", model: "drum-kit", enabled: true, values: {} }),
          key: "kit",
        };
        const project = {
          ...rest,
          strips: strips.map((strip) =>
            strip.kind === "instrument" && strip.source.type === "layers"
              ? { ...strip, source: { ...strip.source, layers: [...strip.source.layers, kit] } }
              : strip,
          ),
        };
        for (const instrument of project.strips.filter(({ kind }) => kind === "instrument").slice(0, 2)) {
          const free = arrange.freeOutputs(project, instrument);
          expect(arrange.outputsOf(instrument).map(({ n }) => n)).toEqual([1, 2, 3, 4]);
          const { steps, strips: made } = arrange.receiveOutputs(project, instrument, mint());
          const now = after(project, steps);
          expect(made).toHaveLength(free.length);
          met.received += made.length;
          const at = now.strips.findIndex(({ id }) => id === instrument.id);
          expect(now.strips.slice(at + 1, at + 1 + made.length).map(({ id }) => id)).toEqual(made);
          expect(arrange.freeOutputs(now, instrument)).toEqual([]);
          for (const strip of now.strips.filter(({ kind }) => kind === "audio").slice(0, 4))
            for (const { id } of arrange.feedersFor(now, strip)) {
              met.offered += 1;
              const source = { type: "output" as const, channels: "stereo" as const, strip: { strip: id }, output: 2 };
              after(now, arrange.changePart(strip, "source", source, mint()));
            }
        }
      }),
      RUNS,
    );
    expect(met.received).toBeGreaterThan(50);
    expect(met.offered).toBeGreaterThan(50);
  });
});
