import { SettingsChangeSchema } from "@/contracts/server";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { changeSettings, getSettings } from "@/server/use-cases/settings";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok(await getSettings(context)));

export const PUT = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, SettingsChangeSchema);
    return body.ok ? changeSettings(context, body.value) : body;
  });
