import { ValuesQuerySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readQuery, route } from "@/server/http/route";
import { findValues } from "@/server/use-cases/find-presets";

export const GET = (request: Request): Promise<Response> =>
  route(request, (context) => {
    const query = readQuery(request, ValuesQuerySchema);
    return Promise.resolve(query.ok ? ok(findValues(context, query.value)) : query);
  });
