import { WantedNamesSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { listTaken } from "@/server/use-cases/naming";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, WantedNamesSchema);
    return body.ok ? ok(await listTaken(context, body.value)) : body;
  });
