import { PresetSheetQuerySchema } from "@/contracts/sheets";
import { documentRoute, readQuery } from "@/server/http/route";
import { printPreset } from "@/server/use-cases/sheets";

export const GET = async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
  const { id } = await params;
  return documentRoute(async (context) => {
    const query = readQuery(request, PresetSheetQuerySchema);
    return query.ok ? printPreset(context, id, query.value, request.signal) : query;
  }, "application/pdf");
};
