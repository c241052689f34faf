import type { Knex } from "knex";
import { type Found, LibraryIndex } from "@/core/search/library-index";
import type { Query } from "@/core/search/query";
import { type StripFace, stripEntry } from "@/core/search/strip-entry";
import { messageOf } from "@/core/result";
import type { ChangedRecord } from "../data/changes";
import type { Executor } from "../data/executor";
import { type Statements, statementsOf } from "../data/statements";
import type { ProjectTable, StripTable } from "../data/tables";
import { takingTurns } from "../turns";

type Head = Pick<ProjectTable, "id" | "name" | "artist" | "client" | "song" | "changed_at">;
type FaceRow = Pick<StripTable, "row" | "face">;

/** A project as it is found: what is said of it, and of each of its strips. */
interface Known {
  /** With which words, and of which day, its strips are indexed. */
  readonly head: string;
  readonly faces: ReadonlyMap<number, string>;
}

/** What a transaction changes, read within it and taken once it is on disk. Null for a project that is none any more. */
export type StagedStrips = ReadonlyMap<string, Known | null>;

const HEADS =
  "SELECT id, name, artist, client, song, changed_at FROM projects WHERE kind = 'project' AND binned_at IS NULL";
const FACES = "SELECT row, face FROM project_strips WHERE project = ?";

/** Dead slots beyond this share are swept out by building anew. */
const MOST_WASTE = 0.5;
/** So few are never swept. */
const FEW = 500;

/** To the day: a project that is worked on is not indexed anew with each gesture. */
const headText = ({ name, artist, client, song, changed_at }: Head): string =>
  JSON.stringify([name, artist, client, song, changed_at.slice(0, 10)]);

function placeOf(head: string) {
  const [name, artist, client, song, day] = JSON.parse(head) as [string, string, string, string, string];
  return { name, artist, client, song, changedAt: Date.parse(day) };
}

/**
 * The strips of all projects, to be searched as presets are. It holds nothing that the database does not: it is built when the store
 * opens, and hears of every transaction.
 */
export class StripSearch {
  private index = new LibraryIndex();
  private known = new Map<string, Known>();

  async build(db: Knex): Promise<void> {
    const turn = takingTurns();
    for (const head of await db.raw<Head[]>(HEADS)) {
      this.put(head.id, knownOf(head, await db.raw<FaceRow[]>(FACES, [head.id])));
      await turn();
    }
  }

  /** Reads what some projects have become, within their transaction. */
  async stage(tx: Executor, records: readonly ChangedRecord[]): Promise<StagedStrips> {
    const ids = new Set(records.filter((r) => r.kind === "project").map((r) => r.id));
    if (ids.size === 0) return new Map();
    const statement = await statementsOf(tx);
    return new Map([...ids].map((id) => [id, readKnown(statement, id)]));
  }

  /** Takes in what a transaction has changed, once it is on disk. */
  take(staged: StagedStrips): void {
    // First what goes: two projects may have taken each other's strips.
    for (const [project, known] of staged) this.let(project, known);
    for (const [project, known] of staged) this.put(project, known);
    if (this.index.waste > MOST_WASTE && this.index.size > FEW) this.sweep();
  }

  find(query: Query, { limit, offset = 0 }: { readonly limit: number; readonly offset?: number }): Found {
    const sort = query.words.length > 0 ? "rank" : "used";
    return this.index.find({ query, folders: null, sort, after: null, offset, limit, counted: false });
  }

  /** Lets go of the strips that a project has no more. */
  private let(project: string, known: Known | null): void {
    const before = this.known.get(project);
    const gone = [...(before?.faces.keys() ?? [])].filter((row) => !known?.faces.has(row));
    for (const row of gone) this.index.remove(row);
    if (!known) this.known.delete(project);
    else if (before && gone.length > 0)
      this.known.set(project, { ...before, faces: new Map([...before.faces].filter(([row]) => known.faces.has(row))) });
  }

  private put(project: string, known: Known | null): void {
    const before = this.known.get(project);
    if (!known) return;
    this.known.set(project, known);
    const place = placeOf(known.head);
    for (const [row, face] of known.faces)
      if (before?.head !== known.head || before.faces.get(row) !== face) this.putRow(row, face, place);
  }

  /** One row that cannot be read is left out, and said where the server is watched; all others are found. */
  private putRow(row: number, face: string, place: ReturnType<typeof placeOf>): void {
    try {
      const strip = JSON.parse(face) as StripFace;
      // A folder has nothing that could be taken.
      if (strip.kind !== "folder") this.index.put(stripEntry(row, strip, place));
    } catch (error) {
      console.error(`Strip ${row} cannot be indexed: ${messageOf(error)}`);
    }
  }

  private sweep(): void {
    const { known } = this;
    this.index = new LibraryIndex();
    this.known = new Map();
    for (const [project, one] of known) this.put(project, one);
  }
}

const knownOf = (head: Head, faces: readonly FaceRow[]): Known => ({
  head: headText(head),
  faces: new Map(faces.map(({ row, face }) => [row, face])),
});

function readKnown(statement: Statements, id: string): Known | null {
  const head = statement<Head>(`${HEADS} AND id = ?`).get(id);
  return head ? knownOf(head, statement<FaceRow>(FACES).all(id)) : null;
}
