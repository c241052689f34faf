import { documentRoute } from "@/server/http/route";
import { presetDocument } from "@/server/use-cases/archive/document";

export const GET = async (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
  const { id } = await params;
  return documentRoute((context) => presetDocument(context, id));
};
