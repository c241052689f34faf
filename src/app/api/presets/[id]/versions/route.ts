import { NewestSchema, VersionNameSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { makeNewest, nameVersion } from "@/server/use-cases/filing/cards";

interface At {
  readonly params: Promise<{ id: string }>;
}

export const PATCH = (request: Request, { params }: At): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, VersionNameSchema);
    if (!body.ok) return body;
    const named = await nameVersion(context, (await params).id, body.value);
    return named.ok ? ok({ ok: true }) : named;
  });

export const POST = (request: Request, { params }: At): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, NewestSchema);
    if (!body.ok) return body;
    const made = await makeNewest(context, (await params).id, body.value.version);
    return made.ok ? ok({ preset: made.value }) : made;
  });
