import { ok } from "@/core/result";
import { failure } from "@/server/failure";
import { route } from "@/server/http/route";
import { findJob, stopJob } from "@/server/store/jobs";

type Params = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async () => {
    const job = findJob((await params).id);
    return job ? ok({ job }) : failure("notFound", "This work is not known any more.");
  });

export const DELETE = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async () => ok({ stopped: stopJob((await params).id) }));
