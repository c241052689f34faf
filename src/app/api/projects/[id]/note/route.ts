import { NoteQuerySchema } from "@/contracts/history";
import { readQuery, route } from "@/server/http/route";
import { noteBetween } from "@/server/use-cases/projects/history";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, NoteQuerySchema);
    return query.ok ? noteBetween(context, (await params).id, query.value) : query;
  });
