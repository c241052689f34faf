import { eventStream } from "@/server/http/events";
import { sharedContext } from "@/server/store/shared";

export const dynamic = "force-dynamic";

export const GET = (request: Request): Response => eventStream(sharedContext(), request.signal);
