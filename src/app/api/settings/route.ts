import { SettingsChangeSchema } from "@/contracts/server";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { changeSettings, getSettings } from "@/server/use-cases/settings";

export const GET = (): Promise<Response> => route(async (context) => ok(await getSettings(context)));

export const PUT = (request: Request): Promise<Response> =>
  route(async (context) => {
    const body = await readJson(request, SettingsChangeSchema);
    return body.ok ? changeSettings(context, body.value) : body;
  });
