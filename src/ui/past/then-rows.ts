import type { ProjectsBeside } from "@/core/history/beside";
import { ledgerOrder } from "@/core/projects/nesting";
import type { Project } from "@/core/projects/project";
import type { ThenRow } from "./then-table";

/** The strips of a project, in its order, then those that are only in the other; only those that differ where that is asked for. */
export function thenRows(
  project: Project,
  compared: ProjectsBeside | null,
  onlyDifferent: boolean,
): readonly ThenRow[] {
  const strips = compared?.strips ?? [];
  const byLeft = new Map(strips.flatMap((one) => (one.left ? [[one.left.id, one] as const] : [])));
  const rows = ledgerOrder(project).map((strip): ThenRow => ({ strip, beside: byLeft.get(strip.id) ?? null }));
  const others = strips.flatMap((one): ThenRow[] =>
    one.left || !one.right ? [] : [{ strip: one.right, beside: one }],
  );
  const all = [...rows, ...others];
  return onlyDifferent ? all.filter(({ beside }) => beside !== null) : all;
}

/** The row that a key goes to. */
export function indexAfter(by: 1 | -1 | "first" | "last", at: number, of: number): number {
  if (by === "first") return 0;
  return by === "last" ? of - 1 : at + by;
}
