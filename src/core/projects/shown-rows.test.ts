import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { STRIP_KINDS } from "../documents/strip-kinds";
import { someProject } from "../recall/testing/generators";
import { stripName } from "../strips/strip";
import { isHolder, ledgerOrder, parentOf, standsWithin } from "./nesting";
import { type Project, getStrip } from "./project";
import { ROW_ORDERS } from "./schema";
import {
  ALL_ROWS,
  type ShownRows,
  hiddenWords,
  hiding,
  isSameRows,
  rowsOf,
  showingAlso,
  showingOnly,
  shownStrips,
  turningKind,
} from "./shown-rows";

const NONE: ReadonlySet<string> = new Set();

/** A project, what is asked to be shown of it (also of strips that are not there), and what is folded. */
const asked = someProject.chain((project) => {
  const ids = fc.subarray([...project.strips.map(({ id }) => id), "gone"]);
  const rows: fc.Arbitrary<ShownRows> = fc.record({
    only: fc.oneof(
      fc.constant(null),
      ids.filter((some) => some.length > 0),
    ),
    hidden: ids,
    also: fc.oneof(fc.constant<string[]>([]), ids),
    kinds: fc.subarray([...STRIP_KINDS]),
    order: fc.constantFrom(...ROW_ORDERS),
  });
  const folded = fc.subarray(project.strips.filter(isHolder).map(({ id }) => id)).map((some) => new Set(some));
  return fc.record({ project: fc.constant(project), rows, folded });
});

const within = (project: Project, id: string, ids: readonly string[]): boolean =>
  ids.some((one) => one === id || standsWithin(project, getStrip(project, id), one));

describe("the rows that a view shows", () => {
  it("are those asked for, without those that are hidden, and those that are shown all the same", () => {
    fc.assert(
      fc.property(asked, ({ project, rows }) => {
        const shown = shownStrips(project, rows);
        const only = rows.only?.filter((id) => project.strips.some((strip) => strip.id === id)) ?? [];
        for (const { id, kind } of project.strips) {
          const isAsked = only.length === 0 || within(project, id, only);
          const isHidden = within(project, id, rows.hidden) || rows.kinds.includes(kind);
          expect(shown.has(id)).toBe(rows.also.includes(id) || (isAsked && !isHidden));
        }
      }),
    );
  });

  it("stand each below what it stands in, whatever the order, and all of them where nothing is hidden", () => {
    fc.assert(
      fc.property(asked, ({ project, rows: { order }, folded }) => {
        const all = rowsOf(project, { ...ALL_ROWS, order }, NONE);
        expect(all.map(({ id }) => id).toSorted()).toEqual(project.strips.map(({ id }) => id).toSorted());
        const places = new Map(all.map(({ id }, at) => [id, at]));
        for (const strip of all) {
          const above = parentOf(project, strip);
          if (above) expect(places.get(above.id)!).toBeLessThan(places.get(strip.id)!);
        }
        expect(rowsOf(project, ALL_ROWS, folded)).toEqual(ledgerOrder(project, folded));
      }),
    );
  });

  it("stand by name, by level and by kind among those that stand in the same", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const top = (order: ShownRows["order"]) =>
          rowsOf(project, { ...ALL_ROWS, order }, NONE).filter((strip) => parentOf(project, strip) === null);
        const names = top("name").map((strip) => stripName(strip).toLowerCase());
        expect(names).toEqual(names.toSorted((a, b) => a.localeCompare(b, "en", { numeric: true })));
        const faders = top("level").flatMap(({ kind, level }) => (kind === "folder" ? [] : [level.fader]));
        expect(faders).toEqual(faders.toSorted((a, b) => b - a));
        const kinds = top("kind").map(({ kind }) => STRIP_KINDS.indexOf(kind));
        expect(kinds).toEqual(kinds.toSorted((a, b) => a - b));
      }),
    );
  });

  it("show what stands in a folded group that is itself hidden", () => {
    fc.assert(
      fc.property(asked, ({ project, folded }) => {
        const holders = [...folded];
        fc.pre(holders.length > 0);
        const rows = { ...ALL_ROWS, kinds: ["group", "folder"] as const satisfies ShownRows["kinds"] };
        const shown = rowsOf(project, { ...rows, kinds: [...rows.kinds] }, folded);
        expect(shown).toHaveLength(project.strips.filter((strip) => !isHolder(strip)).length);
      }),
    );
  });
});

describe("what a hand does to the rows", () => {
  it("hides what is hidden and shows what is shown, and can be turned back", () => {
    fc.assert(
      fc.property(asked, fc.nat(), ({ project, rows }, pick) => {
        const { id, kind } = project.strips[pick % project.strips.length]!;
        expect(shownStrips(project, hiding(rows, [id])).has(id)).toBe(false);
        expect(shownStrips(project, showingAlso(project, rows, [id])).has(id)).toBe(true);
        expect(shownStrips(project, showingOnly(rows, [id])).has(id)).toBe(true);
        expect(isSameRows(turningKind(turningKind(rows, kind), kind), rows)).toBe(true);
        // What is shown already is the same object: nothing is written down for it.
        const shown = showingAlso(project, rows, [id]);
        expect(showingAlso(project, shown, [id])).toBe(shown);
      }),
    );
  });

  it("is said in words: by which kinds and names, and by how many where they are many", () => {
    const [project] = fc.sample(
      someProject.filter(({ strips }) => strips.length > 4),
      1,
    );
    const [first, ...others] = project!.strips;
    expect(hiddenWords(project!, ALL_ROWS)).toEqual([]);
    expect(hiddenWords(project!, hiding(turningKind(ALL_ROWS, "return"), [first!.id]))).toEqual([
      "without returns",
      `without ${stripName(first!)}`,
    ]);
    expect(hiddenWords(project!, hiding(ALL_ROWS, [...others.map(({ id }) => id), "gone"]))).toEqual([
      `without ${others.length} strips`,
    ]);
    expect(hiddenWords(project!, showingOnly(ALL_ROWS, [first!.id]))).toEqual([`only ${stripName(first!)}`]);
    expect(
      hiddenWords(
        project!,
        showingOnly(
          ALL_ROWS,
          others.slice(0, 2).map(({ id }) => id),
        ),
      ),
    ).toEqual(["only 2 strips"]);
  });
});
