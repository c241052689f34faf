import { NewFolderSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { listFolders, makeFolder } from "@/server/use-cases/filing/folders";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok({ folders: await listFolders(context) }));

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewFolderSchema);
      if (!body.ok) return body;
      const made = await makeFolder(context, body.value);
      return made.ok ? ok({ folder: made.value }) : made;
    },
    201,
  );
