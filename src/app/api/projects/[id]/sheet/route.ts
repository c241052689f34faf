import { ProjectSheetQuerySchema } from "@/contracts/sheets";
import { documentRoute, readQuery } from "@/server/http/route";
import { printProject } from "@/server/use-cases/sheets";

export const GET = async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
  const { id } = await params;
  return documentRoute(async (context) => {
    const query = readQuery(request, ProjectSheetQuerySchema);
    return query.ok ? printProject(context, id, query.value.strips, request.signal) : query;
  }, "application/pdf");
};
