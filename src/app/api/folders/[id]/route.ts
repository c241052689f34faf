import { FolderChangeSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { changeFolder, deleteFolder } from "@/server/use-cases/filing/folders";

interface At {
  readonly params: Promise<{ id: string }>;
}

export const PATCH = (request: Request, { params }: At): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, FolderChangeSchema);
    if (!body.ok) return body;
    const changed = await changeFolder(context, (await params).id, body.value);
    return changed.ok ? ok({ ok: true }) : changed;
  });

export const DELETE = (request: Request, { params }: At): Promise<Response> =>
  route(request, async (context) => {
    const gone = await deleteFolder(context, (await params).id);
    return gone.ok ? ok({ ok: true }) : gone;
  });
