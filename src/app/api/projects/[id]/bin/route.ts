import { BinChangeSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { setBinned } from "@/server/use-cases/projects/bin";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, BinChangeSchema);
    return body.ok ? setBinned(context, (await params).id, body.value.binned) : body;
  });
