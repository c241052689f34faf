import fc from "fast-check";
import { expect, it } from "vitest";
import type { ProjectBody } from "@/contracts/projects";
import { someProject } from "@/core/recall/testing/generators";
import type { Strip } from "@/core/strips/strip";
import { contentOf } from "./proposal";
import type { SaveRequest } from "./save";

/** The strip, and the first thing in its chain. */
const requestsFor = (project: string, { id, inserts: { nodes } }: Strip): readonly SaveRequest[] => [
  { project, strips: [id] },
  ...nodes.slice(0, 1).map(({ key }) => ({ project, strips: [id], node: key })),
];

it("what is kept of one strip leads to no other of its project but by its kind and name", () => {
  fc.assert(
    fc.property(someProject, (project) => {
      const history = { undo: null, redo: null };
      const body: ProjectBody = { project, revision: 0, history, draft: null, binnedAt: null };
      for (const strip of project.strips)
        for (const request of requestsFor(project.id, strip))
          for (const parts of [["inserts"], ["inserts", "sends"]] as const)
            expect(JSON.stringify(contentOf({ request, body, strip }, parts))).not.toContain('{"strip":"');
    }),
  );
});
