import { UndoLibrarySchema } from "@/contracts/library";
import { hasBody, readJson, route } from "@/server/http/route";
import { walkLibrary } from "@/server/use-cases/filing/history";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    if (!hasBody(request)) return walkLibrary(context, "redo");
    const body = await readJson(request, UndoLibrarySchema);
    return body.ok ? walkLibrary(context, "redo", body.value.n) : body;
  });
