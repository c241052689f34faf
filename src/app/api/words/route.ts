import { WordChangeSchema } from "@/contracts/library";
import { readJson, route } from "@/server/http/route";
import { changeWords } from "@/server/use-cases/filing/word-lists";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, WordChangeSchema);
    return body.ok ? changeWords(context, body.value) : body;
  });
