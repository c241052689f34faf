import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { processorsOf } from "../chains/tree";
import { findProjectProblem } from "../projects/problems";
import type { Project } from "../projects/project";
import { getStrip } from "../projects/project";
import { reliefsOf } from "../projects/reliefs";
import { applySteps } from "../recall/apply";
import { changePart, findBereft, firstHeirs, removeStrips } from "../recall/arrange";
import { invertSteps } from "../recall/step";
import type { Step } from "../recall/steps";
import { counter, someProject } from "../recall/testing/generators";
import { putBack } from "./put-back";
import { type PluginAt, pluginId, pluginsOn, reliefGroups, relieve } from "./relief";
import { RESET_PARTS, resetStrips } from "./reset";

const RUNS = { numRuns: 60 };
const AT = "2026-11-24T10:00:00.000Z";

const after = (project: Project, steps: readonly Step[]): Project => {
  const applied = applySteps(project, steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  return applied.value;
};

const everywhere = (project: Project): readonly PluginAt[] =>
  pluginsOn(
    project,
    project.strips.map(({ id }) => id),
  );

/** A project with some of its plugins, the project after they were relieved, and what is remembered of it. */
const relieved = fc
  .record({
    project: someProject,
    how: fc.constantFrom("off" as const, "out" as const),
    which: fc.infiniteStream(fc.boolean()),
  })
  .map(({ project, how, which }) => {
    const plugins = everywhere(project).filter(() => which.next().value);
    const steps = relieve({ plugins, how, title: "Some", at: AT }, counter("r"));
    return { project, how, plugins, steps, then: after(project, steps) };
  })
  .filter(({ steps }) => steps.length > 0);

describe("what is relieved", () => {
  it("is off or gone, nothing else is touched, and undo gives the project that was", () => {
    fc.assert(
      fc.property(relieved, ({ project, how, plugins, steps, then }) => {
        const keys = new Set(plugins.map(pluginId));
        const left = everywhere(then).filter((plugin) => keys.has(pluginId(plugin)));
        expect(how === "off" ? left.every(({ processor }) => !processor.enabled) : left.length === 0).toBe(true);
        const others = (of: Project) =>
          everywhere(of)
            .filter((plugin) => !keys.has(pluginId(plugin)))
            .map(({ strip, processor }) => [strip.id, processor]);
        expect(others(then)).toEqual(others(project));
        expect(findProjectProblem(then)).toBeNull();
        expect(after(then, invertSteps(steps))).toEqual(project);
      }),
      RUNS,
    );
  });

  it("is put back as it was, each at its place", () => {
    fc.assert(
      fc.property(relieved, ({ project, then }) => {
        const [relief] = reliefsOf(then);
        const { steps, left, macrosLeft } = putBack(then, relief!, counter("b"));
        expect([left, macrosLeft]).toEqual([[], 0]);
        expect(after(then, steps)).toEqual(project);
      }),
      RUNS,
    );
  });

  it("is put back as far as its strips are there; the others stay remembered, and what was changed since stays", () => {
    fc.assert(
      fc.property(relieved, fc.nat(), ({ then }, at) => {
        const gone = then.strips[at % then.strips.length]!;
        fc.pre(gone.kind !== "main");
        const removed = removeStrips(then, [gone.id], firstHeirs(findBereft(then, [gone.id])), counter("g"));
        fc.pre(removed.ok);
        const without = removed.ok ? after(then, removed.value) : then;
        const [relief] = reliefsOf(without);
        const { steps, back, left } = putBack(without, relief!, counter("b"));
        expect(back.length + left.length).toBe(relief!.plugins.length);
        const now = after(without, steps);
        expect(findProjectProblem(now)).toBeNull();
        expect(left.every(({ stays }) => stays)).toBe(true);
        expect(reliefsOf(now).flatMap(({ plugins }) => plugins)).toEqual(left.map(({ plugin }) => plugin));
        for (const strip of now.strips)
          if (!back.some((plugin) => plugin.strip === strip.id)) expect(getStrip(without, strip.id)).toEqual(strip);
      }),
      RUNS,
    );
  });

  it("stands behind the nearest of those before it that are still there, whatever else was done meanwhile", () => {
    fc.assert(
      fc.property(
        relieved.filter(({ how }) => how === "out"),
        fc.nat(100),
        ({ then }, level) => {
          const changed = after(
            then,
            then.strips.flatMap((strip) =>
              strip.kind === "folder"
                ? []
                : changePart(strip, "level", { ...strip.level, fader: -level / 10 }, counter("l")),
            ),
          );
          const [relief] = reliefsOf(changed);
          const { steps, left } = putBack(changed, relief!, counter("b"));
          expect(left).toEqual([]);
          const now = after(changed, steps);
          for (const { strip, key, layer } of relief!.plugins) {
            if (layer !== undefined) continue;
            expect(processorsOf(getStrip(now, strip).inserts).some((one) => one.key === key)).toBe(true);
          }
          for (const strip of now.strips) expect(strip.level).toEqual(getStrip(changed, strip.id).level);
        },
      ),
      RUNS,
    );
  });

  it("is told where it is there already, and let go", () => {
    fc.assert(
      fc.property(relieved, ({ project, then, how }) => {
        const [relief] = reliefsOf(then);
        const { steps, back, left } = putBack({ ...project, reliefs: [relief!] }, relief!, counter("b"));
        expect(back).toEqual([]);
        expect(new Set(left.map(({ why }) => why))).toEqual(
          new Set([how === "off" ? "it is on already" : "it is there already"]),
        );
        expect(after({ ...project, reliefs: [relief!] }, steps)).toEqual(project);
      }),
      RUNS,
    );
  });
});

describe("what can be relieved", () => {
  it("is grouped by compressors, family and model; every plugin stands in its family and its model once", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const all = everywhere(project);
        const groups = reliefGroups(all);
        const count = (kind: string) =>
          groups.filter(({ id }) => id.startsWith(kind)).reduce((sum, { plugins }) => sum + plugins.length, 0);
        expect([count("family "), count("model ")]).toEqual([all.length, all.length]);
        expect(groups.every(({ plugins }) => plugins.length > 0)).toBe(true);
      }),
      RUNS,
    );
  });
});

describe("back to empty", () => {
  it("leaves nothing to do a second time, and name and output as they are", () => {
    fc.assert(
      fc.property(someProject, fc.subarray([...RESET_PARTS]), fc.boolean(), (project, parts, sendsOut) => {
        const reset = { parts, sendsOut };
        const now = after(project, resetStrips(project.strips, reset, counter("r")));
        expect(resetStrips(now.strips, reset, counter("s"))).toEqual([]);
        for (const strip of now.strips) {
          const was = getStrip(project, strip.id);
          expect([strip.look, strip.routing]).toEqual([was.look, was.routing]);
          for (const part of RESET_PARTS) if (!parts.includes(part)) expect(strip[part]).toEqual(was[part]);
          if (parts.includes("level")) expect([Math.abs(strip.level.fader), strip.level.mute]).toEqual([0, false]);
          if (parts.includes("sends")) expect(strip.sends.every(({ on }) => !on)).toBe(true);
          if (parts.includes("sends") && sendsOut) expect(strip.sends).toEqual([]);
        }
      }),
      RUNS,
    );
  });
});
