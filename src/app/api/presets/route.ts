import { CardChangesSchema, NewPresetSchema, PresetQuerySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, readQuery, route } from "@/server/http/route";
import { findPresets } from "@/server/use-cases/find-presets";
import { patchCards } from "@/server/use-cases/filing/cards";
import { savePreset } from "@/server/use-cases/library";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, PresetQuerySchema);
    return query.ok ? ok(await findPresets(context, query.value)) : query;
  });

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewPresetSchema);
      if (!body.ok) return body;
      const saved = await savePreset(context, body.value);
      return saved.ok ? ok({ preset: saved.value }) : saved;
    },
    201,
  );

export const PATCH = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, CardChangesSchema);
    if (!body.ok) return body;
    const changed = await patchCards(context, body.value);
    return changed.ok ? ok({ cards: changed.value }) : changed;
  });
