/*
 * Bodies that are here already, for whoever answers. Put through the streams of the application a large one would be copied
 * three times over, and hold others up meanwhile. The front and the routes are built apart and share one list by name.
 */

const SHARED = Symbol.for("diathesis.bodies");
type Shared = typeof globalThis & { [SHARED]?: Map<string, Uint8Array> };
const handed = ((globalThis as Shared)[SHARED] ??= new Map<string, Uint8Array>());

/** Says where in the list a body is. From outside it says nothing: the front takes it away from every request. */
export const HANDED_AS = "x-diathesis-body";

let count = 0;

/** Puts a body where `bodyOf` finds it, until it is taken back; returns what the header must say. */
export function handOver(body: Uint8Array): string {
  const key = String(++count);
  handed.set(key, body);
  return key;
}

export const takeBack = (key: string): boolean => handed.delete(key);

/** The body that was handed over with a request, an empty one too; undefined where none was. */
export const handedTo = ({ headers }: Pick<Request, "headers">): Uint8Array | undefined =>
  handed.get(headers.get(HANDED_AS) ?? "");

/** The whole body of a request; one that came past the front is read from its stream. */
export async function bodyOf(request: Pick<Request, "headers" | "arrayBuffer">): Promise<Uint8Array> {
  return handedTo(request) ?? new Uint8Array(await request.arrayBuffer());
}
