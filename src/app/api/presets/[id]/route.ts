import { PresetDetailQuerySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readQuery, route } from "@/server/http/route";
import { deletePreset } from "@/server/use-cases/filing/cards";
import { getPreset } from "@/server/use-cases/library";

interface At {
  readonly params: Promise<{ id: string }>;
}

export const GET = (request: Request, { params }: At): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, PresetDetailQuerySchema);
    return query.ok ? getPreset(context, (await params).id, query.value.version) : query;
  });

export const DELETE = (request: Request, { params }: At): Promise<Response> =>
  route(request, async (context) => {
    const gone = await deletePreset(context, (await params).id);
    return gone.ok ? ok({ ok: true }) : gone;
  });
