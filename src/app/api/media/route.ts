import { NewMediaQuerySchema, RemovedMediaSchema } from "@/contracts/projects";
import { ok } from "@/core/result";
import { readJson, readQuery, readWavBody, route } from "@/server/http/route";
import { allMedia, keepMedia, removeMedia } from "@/server/use-cases/media";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok({ media: await allMedia(context) }));

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const query = readQuery(request, NewMediaQuerySchema);
      if (!query.ok) return query;
      const body = await readWavBody(request);
      if (!body.ok) return body;
      const kept = await keepMedia(context, query.value.name, body.value);
      return kept.ok ? ok({ media: kept.value }) : kept;
    },
    201,
  );

export const DELETE = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, RemovedMediaSchema);
    return body.ok ? removeMedia(context, body.value.hashes) : body;
  });
