import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { stopWork, workUnderWay } from "@/server/store/work";

export const GET = (request: Request): Promise<Response> =>
  route(request, () => Promise.resolve(ok({ work: workUnderWay() })));

export const DELETE = (request: Request): Promise<Response> =>
  route(request, () => Promise.resolve(ok({ stopped: stopWork() })));
