import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { listJobs } from "@/server/store/jobs";

export const GET = (request: Request): Promise<Response> =>
  route(request, () => Promise.resolve(ok({ jobs: listJobs() })));
