import { FileBySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { fileBy } from "@/server/use-cases/filing/cards";

export const POST = (request: Request): Promise<Response> =>
  route(async (context) => {
    const body = await readJson(request, FileBySchema);
    if (!body.ok) return body;
    const filed = await fileBy(context, body.value);
    return filed.ok ? ok({ ok: true }) : filed;
  });
