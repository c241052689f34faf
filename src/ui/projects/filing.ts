import type { Figures } from "@/contracts/projects";
import type { ProjectRow } from "@/contracts/records";
import { inNameOrder } from "@/core/names/order";
import { areBegun, wordsOf } from "@/core/names/words";

/* How projects are filed: in a drawer for each client, and by the year in which they were changed last. */

export type Drawer =
  | { readonly of: "all" }
  | { readonly of: "starters" }
  | { readonly of: "bin" }
  /** A year of a client; all of them where it is null. */
  | { readonly of: "client"; readonly client: string; readonly year: string | null };

/** For whom a project is: its client, else its artist; "" where neither is said. */
export const clientOf = ({ client, artist }: Pick<ProjectRow, "client" | "artist">): string =>
  client.trim() === "" ? artist.trim() : client.trim();

const yearOf = ({ changedAt }: Pick<ProjectRow, "changedAt">): string => String(new Date(changedAt).getFullYear());

/** Whether a project lies in a drawer; of the bin it is told beforehand. */
export function isIn(drawer: Drawer, row: ProjectRow): boolean {
  switch (drawer.of) {
    case "all":
      return true;
    case "bin":
      return row.binnedAt !== null;
    case "starters":
      return row.starter;
    case "client":
      return !row.starter && clientOf(row) === drawer.client && (drawer.year === null || yearOf(row) === drawer.year);
  }
}

export interface ClientDrawer {
  readonly client: string;
  readonly count: number;
  /** The latest first. */
  readonly years: readonly { readonly year: string; readonly count: number }[];
}

/** A drawer for each client, by name, those without one last. Law: each project that is no starter lies in one of them, and in one of its years. */
export function clientDrawers(rows: readonly ProjectRow[]): readonly ClientDrawer[] {
  const drawers = new Map<string, Map<string, number>>();
  for (const row of rows) {
    if (row.starter) continue;
    const [client, year] = [clientOf(row), yearOf(row)];
    const years = drawers.get(client) ?? new Map<string, number>();
    drawers.set(client, years.set(year, (years.get(year) ?? 0) + 1));
  }
  return [...drawers]
    .map(([client, years]) => ({
      client,
      count: [...years.values()].reduce((sum, count) => sum + count, 0),
      years: [...years].map(([year, count]) => ({ year, count })).toSorted((a, b) => b.year.localeCompare(a.year)),
    }))
    .toSorted((a, b) => Number(a.client === "") - Number(b.client === "") || inNameOrder(a.client, b.client));
}

/** Whether each word begins one of those that a project is found by. */
export const isFound = (row: ProjectRow, typed: string): boolean =>
  areBegun(wordsOf(typed), wordsOf([row.name, row.song, row.artist, row.client, yearOf(row)].join(" ")));

export type Figure = Figures["figures"][number];
export type SortBy = "name" | "client" | "tempo" | "strips" | "unsaved" | "size" | "changed";

export interface Sort {
  readonly by: SortBy;
  /** The other way round than one would read it first: names from Z, counts from the least. */
  readonly reversed: boolean;
}

type FiguresById = ReadonlyMap<string, Figure>;

/** What each order goes by, and whether one reads it from the least or from the most. */
const READ: {
  readonly [S in SortBy]: {
    readonly of: (row: ProjectRow, figures: FiguresById) => string | number | undefined;
    readonly from: "least" | "most";
  };
} = {
  name: { of: ({ name }) => name, from: "least" },
  client: { of: clientOf, from: "least" },
  tempo: { of: ({ tempo }) => tempo, from: "least" },
  strips: { of: ({ strips }) => strips, from: "most" },
  unsaved: { of: ({ id }, figures) => figures.get(id)?.unsaved, from: "most" },
  size: { of: ({ id }, figures) => figures.get(id)?.bytes, from: "most" },
  changed: { of: ({ changedAt, binnedAt }) => Date.parse(binnedAt ?? changedAt), from: "most" },
};

const inOrder = (a: string | number, b: string | number): number =>
  typeof a === "string" || typeof b === "string" ? inNameOrder(String(a), String(b)) : a - b;

/**
 * Projects in an order; those that are alike stand as they did. Laws: it holds each of them once; what is not counted yet stands last,
 * either way.
 */
export function sorted(
  rows: readonly ProjectRow[],
  { by, reversed }: Sort,
  figures: FiguresById,
): readonly ProjectRow[] {
  const { of, from } = READ[by];
  const turn = (from === "most") === reversed ? 1 : -1;
  return rows.toSorted((a, b) => {
    const [left, right] = [of(a, figures), of(b, figures)];
    if (left === undefined || right === undefined) return Number(left === undefined) - Number(right === undefined);
    return turn * inOrder(left, right);
  });
}
