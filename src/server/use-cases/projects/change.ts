import type { ChangeRequest, ChangedBody, Together, TogetherRequest } from "@/contracts/projects";
import { kindOf } from "@/core/recall/steps";
import { ok } from "@/core/result";
import type { Outcome } from "../../failure";
import type { Context } from "../../store/context";
import { commitTogether, refuseStale } from "./commit";
import { commitOn } from "./commit-on";

/** Applies steps as one revision, all or none. */
export async function changeProject(
  context: Context,
  id: string,
  request: ChangeRequest,
): Promise<Outcome<ChangedBody>> {
  const { baseRevision, brief = false } = request;
  const steps = request.steps.map((step) => kindOf(step).complete(step));
  const orLater = steps.every((step) => kindOf(step).isOneValue(step));
  const changed = await commitOn(context, id, { base: baseRevision, orLater }, () =>
    Promise.resolve({ label: request.label, steps, passing: request.passing === true }),
  );
  if (!changed.ok || !brief || changed.value.revision !== baseRevision + 1) return changed;
  // Who asked knows the project: it is what they had, with these steps.
  const { project: _, ...rest } = changed.value;
  return ok(rest);
}

/** Applies steps to several projects, to each as one revision; where one refuses, none is changed. */
export const changeTogether = (context: Context, { label, changes }: TogetherRequest): Promise<Outcome<Together>> =>
  commitTogether(
    context,
    changes.map(({ project, baseRevision, steps }) => ({
      project,
      made: (record) => {
        if (baseRevision !== record.revision) refuseStale(record, baseRevision);
        return Promise.resolve({ label, steps: steps.map((step) => kindOf(step).complete(step)) });
      },
    })),
  );
