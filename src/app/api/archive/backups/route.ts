import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { beginBackup, lastBackup } from "@/server/use-cases/archive/backups";

export const GET = (request: Request): Promise<Response> =>
  route(request, (context) => Promise.resolve(ok({ last: lastBackup(context) })));

export const POST = (request: Request): Promise<Response> =>
  route(request, (context) => Promise.resolve(ok({ job: beginBackup(context) })), 202);
