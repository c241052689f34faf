import { route } from "@/server/http/route";
import { walkLibrary } from "@/server/use-cases/filing/history";

export const POST = (request: Request): Promise<Response> => route(request, (context) => walkLibrary(context, "redo"));
