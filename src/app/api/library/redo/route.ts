import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { walkLibrary } from "@/server/use-cases/filing/history";

export const POST = (): Promise<Response> =>
  route(async (context) => {
    const history = await walkLibrary(context, "redo");
    return history.ok ? ok({ history: history.value }) : history;
  });
