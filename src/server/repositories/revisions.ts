import type { RevisionRow } from "@/contracts/records";
import type { About } from "@/core/history/about";
import { liftSteps } from "@/core/recall/migrations";
import type { Step } from "@/core/recall/steps";
import type { Executor } from "../data/executor";
import type { RevisionTable } from "../data/tables";

/* The log of a project: what was done, in steps. It only grows. */

export interface NewRevision {
  readonly label: string;
  readonly steps: readonly Step[];
  readonly at: string;
  readonly undoes?: number;
  readonly redoes?: number;
  readonly window: string | null;
}

interface Numbered extends NewRevision {
  readonly project: string;
  readonly n: number;
  readonly about: About;
}

/** Without the names of fields: it stands beside every value that is turned. */
type WrittenAbout = readonly [
  strips: readonly (readonly [id: string, name: string])[],
  parts: About["parts"],
  presets: About["presets"],
];

const writtenAbout = ({ strips, parts, presets }: About): string =>
  JSON.stringify([strips.map(({ id, name }) => [id, name] as const), parts, presets] satisfies WrittenAbout);

function aboutIn(written: string): About {
  const [strips, parts, presets] = JSON.parse(written) as WrittenAbout;
  return { strips: strips.map(([id, name]) => ({ id, name })), parts, presets };
}

/** Reads what many changes concerned: of those that concerned the same, the same object. */
function readingAbouts(): (written: string | null) => About | null {
  const known = new Map<string, About>();
  return (written) => {
    if (written === null) return null;
    const about = known.get(written) ?? aboutIn(written);
    known.set(written, about);
    return about;
  };
}

/** Returns how much room its steps take, in letters. */
export async function insertRevision(
  db: Executor,
  { steps, about, undoes, redoes, ...said }: Numbered,
): Promise<number> {
  const written = JSON.stringify(steps);
  await db("revisions").insert({
    ...said,
    steps: written,
    about: writtenAbout(about),
    undoes: undoes ?? null,
    redoes: redoes ?? null,
  });
  return written.length;
}

/** What takes back, or does again, which. */
export type RevisionLink = Pick<RevisionTable, "n" | "undoes" | "redoes">;

/** Of every revision up to `last`, the newest there is, from the first on. Most do neither: only those that do are read. */
export async function listLinks(db: Executor, project: string, last: number): Promise<readonly RevisionLink[]> {
  const back = await db("revisions")
    .where({ project })
    .whereRaw("(undoes IS NOT NULL OR redoes IS NOT NULL)")
    .select("n", "undoes", "redoes");
  const links = Array.from({ length: last }, (_, at): RevisionLink => ({ n: at + 1, undoes: null, redoes: null }));
  for (const link of back) links[link.n - 1] = link;
  return links;
}

const stepsIn = (written: string): readonly Step[] => liftSteps(JSON.parse(written));

/** Newest first. */
export async function listRevisions(db: Executor, project: string): Promise<readonly RevisionRow[]> {
  const rows = await db("revisions")
    .where({ project })
    .orderBy("n", "desc")
    .select("n", "at", "label", "undoes", "redoes", "steps");
  return rows.map((row) => ({ ...row, steps: [...stepsIn(row.steps)] }));
}

/** One revision, with its steps. */
export type WholeRevision = Pick<RevisionTable, "n" | "label" | "undoes" | "redoes" | "window"> & {
  readonly steps: readonly Step[];
};

export async function getWhole(db: Executor, project: string, n: number): Promise<WholeRevision> {
  const [whole] = (await wholeByNumber(db, project, [n])).values();
  if (!whole) throw new Error(`${project} has no revision ${n}`);
  return whole;
}

/** Some revisions, by their numbers. */
export async function wholeByNumber(
  db: Executor,
  project: string,
  numbers: readonly number[],
): Promise<ReadonlyMap<number, WholeRevision>> {
  const rows = await db("revisions")
    .where({ project })
    .whereIn("n", [...numbers])
    .select("n", "label", "undoes", "redoes", "window", "steps");
  return new Map(rows.map((row) => [row.n, { ...row, steps: stepsIn(row.steps) }]));
}

/** The steps of each revision behind `after`, up to `to`, oldest first. */
export async function stepsBehind(
  db: Executor,
  project: string,
  { after, to }: { readonly after: number; readonly to: number },
): Promise<readonly { readonly n: number; readonly steps: readonly Step[] }[]> {
  const rows = await db("revisions")
    .where({ project })
    .whereBetween("n", [after + 1, to])
    .orderBy("n")
    .select("n", "steps");
  return rows.map(({ n, steps }) => ({ n, steps: stepsIn(steps) }));
}

export interface ToldRevision extends Pick<RevisionTable, "n" | "at" | "label"> {
  /** Null of what was done before that was kept. */
  readonly about: About | null;
}

/**
 * What was done before a revision, the newest first, some at a time, each time further back; before none, from the newest on. Of
 * those that concerned the same, `about` is the same object.
 */
export function tellingBack(
  db: Executor,
  project: string,
  before: number | null,
): (limit: number) => Promise<readonly ToldRevision[]> {
  const read = readingAbouts();
  let from = before ?? Number.MAX_SAFE_INTEGER;
  return async (limit) => {
    const rows = await db("revisions")
      .where({ project })
      .where("n", "<", from)
      .orderBy("n", "desc")
      .limit(limit)
      .select("n", "at", "label", "about");
    from = rows.at(-1)?.n ?? from;
    return rows.map((row) => ({ ...row, about: read(row.about) }));
  };
}

/** What each revision behind `after`, up to `to`, concerned, oldest first; of those from before that was kept, nothing. */
export async function aboutsBehind(
  db: Executor,
  project: string,
  { after, to }: { readonly after: number; readonly to: number },
): Promise<readonly About[]> {
  const rows = await db("revisions")
    .where({ project })
    .whereBetween("n", [after + 1, to])
    .whereNotNull("about")
    .orderBy("n")
    .select("about");
  const read = readingAbouts();
  return rows.flatMap(({ about }) => read(about) ?? []);
}
