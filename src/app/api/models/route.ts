import { describeModel } from "@/core/processors/model";
import { MODELS } from "@/core/processors/models";
import { ok } from "@/core/result";
import { route } from "@/server/http/route";

export const GET = (request: Request): Promise<Response> =>
  route(request, () => Promise.resolve(ok({ models: MODELS.map(describeModel) })));
