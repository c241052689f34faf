import { FileBySchema } from "@/contracts/library";
import { readJson, route } from "@/server/http/route";
import { fileBy } from "@/server/use-cases/filing/file-by";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, FileBySchema);
    return body.ok ? fileBy(context, body.value) : body;
  });
