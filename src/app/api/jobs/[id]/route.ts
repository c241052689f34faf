import { ok } from "@/core/result";
import { failure } from "@/server/failure";
import { route } from "@/server/http/route";
import { findJob, stopJob } from "@/server/store/jobs";

const unknown = () => failure("notFound", "This work is not known any more.");

type Params = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async () => {
    const job = findJob((await params).id);
    return job ? ok({ job }) : unknown();
  });

export const DELETE = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async () => {
    const { id } = await params;
    return findJob(id) ? ok({ stopped: stopJob(id) }) : unknown();
  });
