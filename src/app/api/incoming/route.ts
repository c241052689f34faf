import { NewIncomingSchema } from "@/contracts/archive";
import { readJson, route } from "@/server/http/route";
import { beginIncoming } from "@/server/use-cases/archive/incoming-files";

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewIncomingSchema);
      return body.ok ? beginIncoming(context, body.value) : body;
    },
    201,
  );
