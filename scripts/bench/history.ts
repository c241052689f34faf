import { processorsOf } from "../../src/core/chains/tree";
import { compareProjects } from "../../src/core/history/beside";
import { getSpec } from "../../src/core/processors/model";
import { getModel } from "../../src/core/processors/models";
import type { Project } from "../../src/core/projects/project";
import { type Random, seededRandom } from "../../src/core/random";
import { applySteps } from "../../src/core/recall/apply";
import { changePart } from "../../src/core/recall/arrange";
import { turn } from "../../src/core/recall/gestures";
import type { Step } from "../../src/core/recall/steps";
import { counter } from "../../src/core/recall/testing/generators";
import type { OpenContext } from "../../src/server/store/context";
import { changeProject } from "../../src/server/use-cases/projects/change";
import { getRevision, listHistory } from "../../src/server/use-cases/projects/history";
import { type Figure, median } from "./figure";
import { projectOf, withProjects } from "./projects";

const CHANGES = 10_000;
const STRIPS = 60;
const MOMENTS = 100;
const ID = "old";

const timed = async (work: () => unknown): Promise<number> => {
  const begin = performance.now();
  await work();
  return performance.now() - begin;
};

/** A level, or a value of a plugin, somewhere in a project. */
function someTurn(project: Project, chance: Random, mint: () => string): readonly Step[] {
  const strip = project.strips[Math.floor(chance() * project.strips.length)]!;
  const processors = processorsOf(strip.inserts);
  const processor = processors[Math.floor(chance() * processors.length)];
  const fader = Math.round(chance() * 600) / 10 - 48;
  if (!processor || chance() < 0.3) return changePart(strip, "level", { fader, mute: false }, mint);
  const model = getModel(processor.model);
  const turned = Object.keys(processor.values).filter((id) => !getSpec(model, id).choices);
  const id = turned[Math.floor(chance() * turned.length)];
  if (id === undefined) return [];
  const { min, max } = getSpec(model, id);
  return turn({ strip, mint }, processor.key, { [id]: min + chance() * (max - min) });
}

async function turnAll(context: OpenContext, start: Project): Promise<void> {
  const [chance, mint] = [seededRandom(15), counter("turn")];
  let project = start;
  for (let baseRevision = 0; baseRevision < CHANGES; ) {
    const steps = someTurn(project, chance, mint);
    const next = applySteps(project, steps);
    if (steps.length === 0 || !next.ok) continue;
    const request = { baseRevision, label: "Turn a value", steps: [...steps], brief: true };
    const changed = await changeProject(context, ID, request);
    if (!changed.ok) throw new Error(changed.error.message);
    project = next.value;
    baseRevision++;
  }
}

/** A project of 60 strips with 10,000 changes: the slowest of a hundred moments, a page of its history, and its room on the disk ÷ that of its steps. */
export const histories = (): Promise<readonly Figure[]> =>
  withProjects([projectOf(ID, STRIPS)], async (context) => {
    await turnAll(context, projectOf(ID, STRIPS));
    const chance = seededRandom(16);
    const moments: number[] = [];
    for (let n = 0; n < MOMENTS; n++) {
      const at = Math.floor(chance() * (CHANGES + 1));
      moments.push(await timed(async () => JSON.stringify(await getRevision(context, ID, at))));
    }
    const pages: number[] = [];
    for (const q of ["", "turn", "level of s3", "since yesterday", "nothing of it"])
      for (let run = 0; run < 5; run++) pages.push(await timed(() => listHistory(context, ID, { q })));
    const sum = async (words: string) => ((await context.db.raw(words)) as [{ readonly size: number }])[0].size;
    const log = await sum("SELECT sum(length(steps)) AS size FROM revisions");
    const whole = await sum("SELECT sum(length(packed)) AS size FROM moments");
    const told = await sum("SELECT sum(length(label) + coalesce(length(about), 0)) AS size FROM revisions");
    return [
      { name: "history-10k", value: Math.max(...moments), op: "<=", goal: 100, unit: "ms", runs: MOMENTS },
      { name: "history-10k-page", value: Math.max(...pages), op: "<=", goal: 100, unit: "ms", runs: pages.length },
      { name: "history-10k-size", value: (log + whole + told) / log, op: "<=", goal: 1.5, unit: "ratio", runs: 1 },
    ];
  });

/** Every difference of two moments of a project of 200 strips, a third of which are not as they were. */
export async function comparisons(): Promise<Figure> {
  const RUNS = 60;
  const [chance, mint] = [seededRandom(17), counter("turn")];
  const left = projectOf("p", 200);
  let right = left;
  for (let n = 0; n < 200; n++) {
    const next = applySteps(right, someTurn(right, chance, mint));
    if (next.ok) right = next.value;
  }
  // As they come from the server: no object is another's.
  const [then, now] = [structuredClone(left), structuredClone(right)];
  for (let warm = 0; warm < 15; warm++) compareProjects(then, now);
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) times.push(await timed(() => compareProjects(then, now)));
  return { name: "compare-200", value: median(times), op: "<=", goal: 50, unit: "ms", runs: RUNS };
}
