import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MOST_VIEWS } from "../../documents/limits";
import { withoutKept } from "../../projects/project";
import { ALL_ROWS } from "../../projects/shown-rows";
import { type View, findView, freeDigit, viewsOf, withView } from "../../projects/views";
import type { Project } from "../../projects/project";
import { applySteps } from "../apply";
import { sentenceOf } from "../sentences";
import { invertSteps } from "../step";
import { someProject } from "../testing/generators";
import type { Step } from ".";

const someView: fc.Arbitrary<View> = fc.record({
  ...Object.fromEntries(Object.entries(ALL_ROWS).map(([key, rows]) => [key, fc.constant(rows)])),
  id: fc.constantFrom("a", "b", "c", "d"),
  name: fc.constantFrom("Drums", "Sends", "All by name"),
  digit: fc.constantFrom(null, 1, 2, 9),
  order: fc.constantFrom("project", "name"),
  columns: fc.constantFrom([{ id: "look" }], [{ id: "look" }, { id: "sends", width: 300 }]),
}) as unknown as fc.Arbitrary<View>;

const setView = (project: Project, view: string, to: View | null): Step => ({
  id: "s",
  kind: "setView",
  view,
  from: findView(project, view),
  to,
});

const DRUMS: View = { ...ALL_ROWS, id: "a", name: "Drums", digit: 1, columns: [{ id: "look" }] };

const refusal = (on: Project, step: Step) => {
  const applied = applySteps(on, [step]);
  return applied.ok ? null : applied.error.reason;
};

describe("views that are kept of a project", () => {
  it("change nothing that is heard, and are taken back by the inverse of their steps", () => {
    fc.assert(
      fc.property(someProject, fc.array(someView, { maxLength: 8 }), (project, views) => {
        const steps: Step[] = [];
        let kept = project;
        for (const view of views) {
          const step = setView(kept, view.id, view);
          const applied = applySteps(kept, [step]);
          if (!applied.ok) throw new Error(applied.error.reason);
          steps.push(step);
          kept = applied.value;
        }
        expect(kept.strips).toBe(project.strips);
        expect(withoutKept(kept)).toEqual(project);
        const back = applySteps(kept, invertSteps(steps));
        expect(back.ok && back.value).toEqual(project);
      }),
      { numRuns: 60 },
    );
  });

  it("stand by their digits, those without one last, in whichever order they were kept", () => {
    fc.assert(
      fc.property(someProject, fc.uniqueArray(someView, { selector: ({ id }) => id }), (project, views) => {
        const all = (some: readonly View[]) => some.reduce((kept, view) => withView(kept, view.id, view), project);
        expect(all(views)).toEqual(all(views.toReversed()));
        const digits = viewsOf(all(views)).map(({ digit }) => digit ?? 10);
        expect(digits).toEqual(digits.toSorted((a, b) => a - b));
        const free = freeDigit(all(views));
        expect(digits).not.toContain(free);
      }),
      { numRuns: 60 },
    );
  });

  it("are refused where another stands there, under another key, and beyond the most", () => {
    const [project] = fc.sample(someProject, 1);
    const kept = withView(project!, "a", DRUMS);
    expect(refusal(kept, { ...setView(project!, "a", { ...DRUMS, name: "Sends" }) })).toBe(
      "The view has changed since.",
    );
    expect(refusal(kept, setView(kept, "b", DRUMS))).toBe("The step is for “b” and places “a”.");
    const full = { ...project!, views: Array.from({ length: MOST_VIEWS }, (_, at) => ({ ...DRUMS, id: `v${at}` })) };
    expect(refusal(full, setView(full, "a", DRUMS))).toBe("Of a project 100 views are kept at the most.");
    expect(
      freeDigit({ ...project!, views: [1, 2, 3, 4, 5, 6, 7, 8, 9].map((digit) => ({ ...DRUMS, digit })) }),
    ).toBeNull();
  });

  it("are told by what is changed of them", () => {
    const [some] = fc.sample(someProject, 1);
    const kept = withView(some!, "a", DRUMS);
    const words = (to: View | null, on = kept) => sentenceOf(setView(on, "a", to), on);
    expect(words(DRUMS, some)).toBe(`${some!.name}: keep the view “Drums”.`);
    expect(words({ ...DRUMS, name: "Kit" })).toBe(`${some!.name}: the view “Drums” → “Kit”.`);
    expect(words({ ...DRUMS, digit: null })).toBe(`${some!.name}: the key of the view “Drums” 1 → none.`);
    expect(words({ ...DRUMS, order: "name" })).toBe(`${some!.name}: what the view “Drums” shows.`);
    expect(words(null)).toBe(`${some!.name}: remove the view “Drums”.`);
  });
});
