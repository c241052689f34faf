import type { QueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PlanRequest, ProjectBody } from "@/contracts/projects";
import { applySteps } from "@/core/recall/apply";
import type { Plan } from "@/core/recall/plan-shape";
import { whenSent } from "../projects/sending";

/** So often it is planned anew at the most, where the hand is quicker each time. */
const MOST_TRIES = 8;

/** A plan for what stands here now, to be done at once: what is done in this window meanwhile, it is planned anew on. */
export async function planNow(queries: QueryClient, project: string, request: PlanRequest): Promise<Plan> {
  for (let tries = 1; ; tries++) {
    await whenSent(queries, project);
    const { plan } = await api.planRecall(project, request);
    const shown = queries.getQueryData<ProjectBody>(KEYS.project(project));
    if (!shown || tries === MOST_TRIES || applySteps(shown.project, plan.steps).ok) return plan;
  }
}
