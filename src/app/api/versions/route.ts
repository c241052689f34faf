import { WantedVersionsSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { listSaved } from "@/server/use-cases/library";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, WantedVersionsSchema);
    return body.ok ? ok({ versions: await listSaved(context, body.value) }) : body;
  });
