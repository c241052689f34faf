import { describeModel } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import { ok } from "@/core/result";
import { failure } from "@/server/failure";
import { route } from "@/server/http/route";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async () => {
    const { id } = await params;
    const model = findModel(id);
    return model ? ok({ model: describeModel(model) }) : failure("notFound", `No model is called “${id}”.`);
  });
