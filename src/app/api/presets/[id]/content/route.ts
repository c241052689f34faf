import { NewVersionSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { saveVersion } from "@/server/use-cases/library";

export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, NewVersionSchema);
    if (!body.ok) return body;
    const saved = await saveVersion(context, (await params).id, body.value);
    return saved.ok ? ok({ preset: saved.value }) : saved;
  });
