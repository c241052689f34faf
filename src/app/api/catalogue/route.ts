import { CatalogueQuerySchema } from "@/contracts/archive";
import { ok } from "@/core/result";
import { documentRoute, readBytesBody, readQuery, route } from "@/server/http/route";
import { bringCatalogue, catalogueOf, previewCatalogue } from "@/server/use-cases/archive/catalogue";

export const GET = (): Promise<Response> =>
  documentRoute((context) => ok(catalogueOf(context)), "text/csv; charset=utf-8");

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, CatalogueQuerySchema);
    if (!query.ok) return query;
    const body = await readBytesBody(request);
    if (!body.ok) return body;
    return query.value.preview ? previewCatalogue(context, body.value) : bringCatalogue(context, body.value);
  });
