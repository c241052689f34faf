import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import type { ChangeRequest } from "../../src/contracts/projects";
import { DEMO_PROJECTS } from "../../src/demo/projects";
import type { Content } from "../../src/core/presets/preset";
import { saveStrips } from "../../src/core/presets/save";
import type { Project } from "../../src/core/projects/project";
import { planRecall } from "../../src/core/recall/plan";
import type { PlanInput } from "../../src/core/recall/plan-shape";
import { counter } from "../../src/core/recall/testing/generators";
import { PARTS } from "../../src/core/strips/parts";
import { type Strip, createStrip, offeredParts } from "../../src/core/strips/strip";
import { seededRandom } from "../../src/core/random";
import { inTransaction } from "../../src/server/store/transaction";
import { type OpenContext } from "../../src/server/store/context";
import { openContext } from "../../src/server/store/open";
import { insertProject } from "../../src/server/repositories/projects";
import { findStrips } from "../../src/server/use-cases/find-strips";
import { changeProject } from "../../src/server/use-cases/projects/change";
import { getProject } from "../../src/server/use-cases/projects/read";
import { type Figure, median, percentile, ratioOf } from "./figure";
import { onMemory } from "./storage";

const SOUNDING: readonly Strip[] = DEMO_PROJECTS.flatMap(([, project]) =>
  project.strips.filter(({ kind }) => kind === "audio"),
);
/** Words that strips are called by in the bench. */
const NAMES = ["Cello", "Voice", "Frame drum", "Horn", "Patch", "Choir", "Rim", "Narrator", "Vibraphone", "Quay"];

/** A project of so many strips: groups of eight, each strip with the sound of one of the demo's and two sends. */
export function projectOf(id: string, size: number, seed = 1): Project {
  const chance = seededRandom(seed);
  const main = createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" });
  const buses = ["plate", "echo"].map((bus) => createStrip(bus, "return", { name: bus }, { strip: "main" }));
  const strips = Array.from({ length: size - 3 }, (_, n): Strip => {
    const group = `s${Math.floor(n / 8) * 8}`;
    const name = `${NAMES[Math.floor(chance() * NAMES.length)]} ${n}`;
    if (n % 8 === 0) return createStrip(group, "group", { name: `Group ${n}` }, { strip: "main" });
    const sound = SOUNDING[Math.floor(chance() * SOUNDING.length)]!;
    const sends = buses.map((bus) => ({
      key: bus.id,
      to: { strip: bus.id },
      tap: "post" as const,
      level: -12,
      pan: 0,
      on: true,
    }));
    const blank = createStrip(`s${n}`, "audio", { name }, { strip: group });
    return { ...blank, inserts: { ...sound.inserts, macros: [] }, sends };
  });
  const [, { schema, meter, sampleRate, key }] = DEMO_PROJECTS[0]!;
  const words = { name: `Project ${id}`, artist: "Copper Heron", client: "Copper Heron", song: `Song ${id}` };
  return { schema, id, ...words, tempo: 92, meter, key, sampleRate, strips: [...strips, ...buses, main] };
}

const timed = (work: () => unknown): number => {
  const begin = performance.now();
  work();
  return performance.now() - begin;
};

/** A set of 24 strips. */
export function setOf24(): Content {
  const from = projectOf("set", 40, 7);
  const some = from.strips.filter(({ kind }) => kind !== "main").slice(0, 24);
  return saveStrips(
    from,
    some.map((strip) => ({ strip, parts: offeredParts(strip) })),
    "set",
  );
}

/** The set onto a project, matched to those strips that are like its own. */
function inputFor(project: Project): PlanInput {
  const content = setOf24();
  return {
    project,
    requests: [
      {
        source: { content, from: { preset: "set", version: 1, name: "Set" }, name: "Set" },
        parts: PARTS.filter((part) => part !== "source"),
        targets: { set: { onto: "matched", among: null, after: null } },
        mode: "replace",
      },
    ],
    except: [],
    answers: {},
    mint: counter(),
  };
}

const medianOf = (runs: number, work: () => unknown): number => median(Array.from({ length: runs }, () => timed(work)));

/** The plan of a set onto 200 strips, and how planning grows with the project: the slope of its logarithm over that of the size. */
export function plans(): readonly Figure[] {
  const RUNS = 40;
  const sizes = [50, 100, 200, 400];
  const times = sizes.map((size) => {
    const input = inputFor(projectOf("p", size));
    for (let warm = 0; warm < 15; warm++) planRecall(input);
    return medianOf(RUNS, () => planRecall(input));
  });
  const [x, y] = [sizes.map(Math.log), times.map(Math.log)];
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  const [mx, my] = [mean(x), mean(y)];
  const slope =
    x.reduce((sum, one, at) => sum + (one - mx) * (y[at]! - my), 0) / x.reduce((sum, one) => sum + (one - mx) ** 2, 0);
  return [
    { name: "plan-200", value: times[2]!, op: "<=", goal: 30, unit: "ms", runs: RUNS },
    { name: "plan-growth", value: slope, op: "<=", goal: 1.3, unit: "slope", runs: RUNS * sizes.length },
  ];
}

export async function withProjects<T>(
  projects: readonly Project[],
  work: (context: OpenContext) => Promise<T>,
): Promise<T> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  try {
    if (onMemory(folder)) throw new Error("a memory file system: refused");
    const context = await openContext(folder);
    const at = context.now().toISOString();
    for (let from = 0; from < projects.length; from += 50)
      await inTransaction(context, async (tx, note) => {
        for (const project of projects.slice(from, from + 50)) {
          await insertProject(tx, { project, at });
          note({ kind: "project", id: project.id });
        }
      });
    const result = await work(context);
    await context.close();
    return result;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** One value changed in a project of 200 strips ÷ in one of 8: as the interface makes it, durable. */
export const edits = (): Promise<Figure> =>
  withProjects([projectOf("large", 200), projectOf("small", 11)], async (context) => {
    const RUNS = 80;
    let level = 0;
    const change = async (id: string): Promise<number> => {
      const found = await getProject(context, id);
      if (!found.ok) throw new Error(found.error.message);
      const strip = found.value.project.strips[1]!;
      level = (level - 0.1) % 60;
      const to = { ...strip.level, fader: level };
      const steps = [{ id: `n${level}`, kind: "setPart", strip: strip.id, part: "level", from: strip.level, to }];
      const request = { baseRevision: found.value.revision, label: "Level", steps, brief: true } as ChangeRequest;
      const begin = performance.now();
      const changed = await changeProject(context, id, request);
      if (!changed.ok) throw new Error(changed.error.message);
      JSON.stringify(changed.value);
      return performance.now() - begin;
    };
    for (let warm = 0; warm < 40; warm++) for (const id of ["large", "small"]) await change(id);
    const edit = await ratioOf(
      RUNS,
      () => change("large"),
      () => change("small"),
    );
    return { name: "edit-200", value: edit, op: "<=", goal: 1.5, unit: "ratio", runs: RUNS };
  });

const TYPED = ["c", "v", "q", "ce", "vo", "fr", "cel", "hor", "nar", "cello co", "voice pr", "patch so"];

/** Search over 100,000 strips of 3,000 projects, p95 over what is typed ÷ the same by FTS5 alone. */
export async function strips(): Promise<readonly Figure[]> {
  const projects = Array.from({ length: 3000 }, (_, n) => projectOf(`p${n}`, 34, n + 1));
  return withProjects(projects, async (context) => {
    const raw = new Database(":memory:");
    raw.exec('CREATE VIRTUAL TABLE s USING fts5(name, tags, purpose, origin, prefix="1 2 3")');
    const put = raw.prepare("INSERT INTO s (rowid, name, tags, purpose, origin) VALUES (?, ?, '', ?, ?)");
    raw.transaction(() => {
      let row = 1;
      for (const { strips: all, name, artist } of projects)
        for (const strip of all) {
          const inside = strip.inserts.nodes.map((node) => ("model" in node ? node.model : "")).join(" ");
          put.run(row++, strip.look.name, inside, `${name} ${artist}`);
        }
    })();
    const theirs = raw.prepare("SELECT rowid FROM s WHERE s MATCH ? ORDER BY bm25(s, 10, 4, 2, 1) LIMIT 60");
    const match = (q: string) =>
      q
        .split(" ")
        .map((word) => `"${word}"*`)
        .join(" ");
    const [own, plain]: [number[], number[]] = [[], []];
    for (let round = 0; round < 5; round++)
      for (const q of TYPED) {
        const begin = performance.now();
        await findStrips(context, { q, limit: 60 });
        own.push(performance.now() - begin);
        plain.push(timed(() => theirs.all(match(q))));
      }
    const p95 = percentile(own, 0.95);
    const runs = own.length;
    return [
      { name: "strips-100k", value: p95 / percentile(plain, 0.95), op: "<=", goal: 0.2, unit: "ratio", runs },
      { name: "strips-100k-ms", value: p95, op: "<=", goal: 15, unit: "ms", runs },
    ];
  });
}
