import { SearchChangeSchema } from "@/contracts/library";
import { readJson, route } from "@/server/http/route";
import { changeSearch } from "@/server/use-cases/filing/searches";

export const PUT = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, SearchChangeSchema);
    return body.ok ? changeSearch(context, body.value) : body;
  });
