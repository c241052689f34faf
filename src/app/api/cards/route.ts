import { WantedCardsSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { listCards } from "@/server/use-cases/filing/cards";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, WantedCardsSchema);
    return body.ok ? ok({ cards: await listCards(context, body.value.ids) }) : body;
  });
