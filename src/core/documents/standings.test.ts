import fc from "fast-check";
import { expect, it } from "vitest";
import { type HistoryLink, standings, walkHistory } from "./history";

/** A log as a person leaves it: changes, with undos and redos of any that can be, some out of reach for good. */
function logOf(doing: readonly number[]): readonly HistoryLink[] {
  const links: HistoryLink[] = [];
  for (const [at, way] of doing.entries()) {
    const { undo, redo } = walkHistory(links);
    const n = at + 1;
    const made = { n, label: `${n}`, undoes: null, redoes: null };
    const pick = (pile: readonly number[]) => pile[(way >> 3) % Math.max(1, pile.length)] ?? null;
    const [back, again] = [pick(undo), pick(redo)];
    if (way % 4 === 1 && back !== null) links.push({ ...made, undoes: back });
    else if (way % 4 === 2 && again !== null) links.push({ ...made, redoes: again });
    else links.push({ ...made, closed: way % 32 === 0 });
  }
  return links;
}

it("every change stands in one way, and what can be taken back or done again says so", () => {
  fc.assert(
    fc.property(fc.array(fc.nat(1000), { maxLength: 40 }), (doing) => {
      const links = logOf(doing);
      const { undo, redo } = walkHistory(links);
      const all = standings(links);
      const made = links.filter((link) => link.undoes === null && link.redoes === null).map(({ n }) => n);
      expect([...all.keys()].toSorted((a, b) => a - b)).toEqual(made);
      expect(made.filter((n) => all.get(n) === "done")).toEqual(undo.toSorted((a, b) => a - b));
      expect(made.filter((n) => all.get(n) === "undone")).toEqual(redo.toSorted((a, b) => a - b));
      for (const n of made) {
        const last = links.findLast((link) => link.n === n || link.undoes === n || link.redoes === n);
        expect(all.get(n)?.startsWith("undone")).toBe(last?.undoes === n);
      }
    }),
  );
});
