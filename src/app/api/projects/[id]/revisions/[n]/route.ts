import { RevisionNumberSchema } from "@/contracts/projects";
import { failure } from "@/server/failure";
import { route } from "@/server/http/route";
import { getRevision } from "@/server/use-cases/projects/history";

export const GET = (request: Request, { params }: { params: Promise<{ id: string; n: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const { id, n } = await params;
    const number = RevisionNumberSchema.safeParse(n);
    if (!number.success) return failure("notUnderstood", "A revision is a whole number from 0.", { path: "n" });
    return getRevision(context, id, number.data);
  });
