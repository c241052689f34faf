import { describe, expect, it } from "vitest";
import { ledgerOrder } from "@/core/projects/nesting";
import { findProjectProblem } from "@/core/projects/problems";
import { DEMO_PROJECTS } from "./projects";

describe("the projects of the sample world", () => {
  it.each(DEMO_PROJECTS.map(([, project]) => [project.name, project] as const))("%s is whole", (_, project) => {
    expect(findProjectProblem(project)).toBeNull();
    expect(ledgerOrder(project)).toHaveLength(project.strips.length);
  });
});
