import { fileRoute, route } from "@/server/http/route";
import { pathOf, removeFile } from "@/server/use-cases/archive/files";

type Params = { params: Promise<{ name: string }> };

export const GET = async (_: Request, { params }: Params): Promise<Response> => {
  const { name } = await params;
  return fileRoute(name, (context) => pathOf(context, name));
};

export const DELETE = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async (context) => removeFile(context, (await params).name));
