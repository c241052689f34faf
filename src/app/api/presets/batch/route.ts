import { NewPresetsSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { savePresets } from "@/server/use-cases/library";

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewPresetsSchema);
      if (!body.ok) return body;
      const saved = await savePresets(context, body.value);
      return saved.ok ? ok({ presets: saved.value }) : saved;
    },
    201,
  );
