import { bytesRoute } from "@/server/http/route";
import { presetDocument } from "@/server/use-cases/archive/document";

export const GET = async (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
  const { id } = await params;
  return bytesRoute("application/json", (context) => Promise.resolve(presetDocument(context, id)), { isFixed: false });
};
