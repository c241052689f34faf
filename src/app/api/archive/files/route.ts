import { NewArchiveSchema } from "@/contracts/archive";
import { readJson, route } from "@/server/http/route";
import { beginArchive } from "@/server/use-cases/archive/files";

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewArchiveSchema);
      return body.ok ? beginArchive(context, body.value.wish) : body;
    },
    202,
  );
