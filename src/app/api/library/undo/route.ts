import { route } from "@/server/http/route";
import { walkLibrary } from "@/server/use-cases/filing/history";

export const POST = (): Promise<Response> => route((context) => walkLibrary(context, "undo"));
