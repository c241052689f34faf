import { PlaceQuerySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readQuery, route } from "@/server/http/route";
import { placeOf } from "@/server/use-cases/find-presets";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, PlaceQuerySchema);
    return query.ok ? ok({ place: await placeOf(context, query.value) }) : query;
  });
