import { MendSchema } from "@/contracts/archive";
import { readJson, route } from "@/server/http/route";
import { mendFaults } from "@/server/use-cases/archive/check";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, MendSchema);
    return body.ok ? mendFaults(context, body.value.faults) : body;
  });
