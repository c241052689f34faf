import type { KeepMixRequest } from "@/contracts/history";
import type { ProjectBody } from "@/contracts/projects";
import { type Outcome, refuse } from "../../failure";
import type { Context } from "../../store/context";
import { commitOn } from "./commit-on";

/**
 * Keeps a moment of a project under a name, as one more change of it, which is taken back as every other. The moment itself stands in
 * the log: what is done later, and a return, leave it as it is.
 */
export const keepMix = (
  context: Context,
  id: string,
  { baseRevision, revision = baseRevision, name, take, note }: KeepMixRequest,
): Promise<Outcome<ProjectBody>> =>
  commitOn(context, id, { base: baseRevision }, (record) => {
    if (revision > record.revision)
      refuse("notFound", `“${record.project.name}” has revisions 0 to ${record.revision}.`, { path: "revision" });
    const mix = context.mint();
    const to = { id: mix, name, take, note, at: context.now().toISOString(), n: revision };
    return Promise.resolve({
      label: `Keep the mix “${name}”`,
      steps: [{ id: context.mint(), kind: "setMix", mix, from: null, to }],
    });
  });
