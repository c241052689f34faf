import { bytesRoute } from "@/server/http/route";
import { mediaBytes } from "@/server/use-cases/media";

export const GET = async (request: Request, { params }: { params: Promise<{ hash: string }> }): Promise<Response> => {
  const { hash } = await params;
  return bytesRoute("audio/wav", (context) => mediaBytes(context, hash));
};
