import { z } from "zod";
import { ENDPOINTS, type Endpoint } from "./endpoints";
import { ErrorBodySchema } from "./errors";

const schemaOf = (schema: z.ZodType, io: "input" | "output" = "output") => z.toJSONSchema(schema, { io });
const json = (schema: z.ZodType) => ({ "application/json": { schema: schemaOf(schema) } });

function parameters({ path, query }: Endpoint) {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: "path",
    required: true,
    schema: { type: "string" },
  }));
  const inQuery = Object.entries(query?.shape ?? {}).map(([name, schema]) => ({
    name,
    in: "query",
    required: false,
    schema: schemaOf(schema as z.ZodType, "input"),
  }));
  return [...inPath, ...inQuery];
}

const operation = (endpoint: Endpoint) => ({
  summary: endpoint.summary,
  parameters: parameters(endpoint),
  ...(endpoint.body ? { requestBody: { required: true, content: json(endpoint.body) } } : {}),
  responses: {
    [endpoint.status ?? 200]: { description: "Done", content: json(endpoint.answer) },
    default: { description: "Refused; nothing has changed", content: json(ErrorBodySchema) },
  },
});

/** OpenAPI 3.1, from the same schemas that check each request. */
export function openApi(version: string) {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const endpoint of ENDPOINTS)
    paths[endpoint.path] = { ...paths[endpoint.path], [endpoint.method]: operation(endpoint) };
  return { openapi: "3.1.0", info: { title: "Diathesis", version }, paths };
}
