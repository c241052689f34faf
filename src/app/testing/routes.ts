/* The handlers of the API, called without a server around them. */

type Handler = (request: Request, at: { params: Promise<Record<string, string>> }) => Promise<Response> | Response;

const ROUTES = Object.entries(import.meta.glob<Record<string, Handler>>("../api/**/route.ts")).map(([file, load]) => {
  const path = file.replace("../", "/").replace(/\/route\.ts$/, "");
  const names = [...path.matchAll(/\[(\w+)\]/g)].map(([, name]) => name!);
  const pattern = new RegExp(`^${path.replaceAll(/\[\w+\]/g, "([^/]+)")}$`);
  return { path, names, pattern, load };
});

/** Every route: its path as the folders have it, and its handlers. */
export const routeFiles = () => ROUTES.map(({ path, load }) => ({ path, load }));

/** Where two addresses fit, the one with fewer names in it: /api/presets/batch is no preset. */
function routeOf(pathname: string) {
  const fitting = ROUTES.filter(({ pattern }) => pattern.test(pathname)).toSorted(
    (a, b) => a.names.length - b.names.length,
  );
  const [route] = fitting;
  if (!route) throw new Error(`There is no route ${pathname}.`);
  const [, ...values] = route.pattern.exec(pathname)!;
  return {
    load: route.load,
    params: Object.fromEntries(route.names.map((name, n) => [name, decodeURIComponent(values[n]!)])),
  };
}

/** The address that is asked for. */
export const urlOf = (input: RequestInfo | URL): string => (input instanceof Request ? input.url : input.toString());

/** As `fetch`, by the handlers of the routes. */
export async function answer(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
  const { cache: _, ...rest } = init ?? {};
  const request = new Request(new URL(urlOf(input), "http://127.0.0.1"), rest);
  const { load, params } = routeOf(new URL(request.url).pathname);
  const handler = (await load())[request.method];
  if (!handler) throw new Error(`${request.method} ${request.url} is not answered.`);
  return handler(request, { params: Promise.resolve(params) });
}
