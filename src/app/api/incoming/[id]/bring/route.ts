import { BringSchema } from "@/contracts/archive";
import { readJson, route } from "@/server/http/route";
import { beginBringing } from "@/server/use-cases/archive/incoming-files";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, BringSchema);
      return body.ok ? beginBringing(context, (await params).id, body.value) : body;
    },
    202,
  );
