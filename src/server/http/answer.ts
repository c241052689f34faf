import { takingTurns } from "../turns";

/** Lists that are longer are written element by element, in turns with others. */
const LONG = 100;
/** Letters that go out together. */
const PIECE = 64 * 1024;

/** JSON in pieces: long lists of an answer one element at a time, all else as the language writes it. */
function* textOf(value: object): Generator<string> {
  let before = "{";
  for (const [key, part] of Object.entries(value) as [string, unknown][]) {
    if (part === undefined) continue;
    yield `${before}${JSON.stringify(key)}:`;
    before = ",";
    if (!Array.isArray(part) || part.length <= LONG) yield JSON.stringify(part);
    else {
      for (const [at, element] of part.entries()) yield `${at === 0 ? "[" : ","}${JSON.stringify(element)}`;
      yield "]";
    }
  }
  yield before === "{" ? "{}" : "}";
}

const hasLong = (value: unknown): value is object =>
  typeof value === "object" &&
  value !== null &&
  !Array.isArray(value) &&
  Object.values(value).some((part) => Array.isArray(part) && part.length > LONG);

/** An answer in JSON. One with thousands of rows is written while others have their turn. */
export function jsonAnswer(value: unknown, status: number): Response {
  if (!hasLong(value)) return Response.json(value, { status });
  const encoder = new TextEncoder();
  const pieces = textOf(value);
  const turn = takingTurns();
  const stream = new ReadableStream<Uint8Array>({
    async pull(controller) {
      let text = "";
      while (text.length < PIECE) {
        const next = pieces.next();
        if (next.done) {
          controller.enqueue(encoder.encode(text));
          return controller.close();
        }
        text += next.value;
        await turn();
      }
      controller.enqueue(encoder.encode(text));
    },
  });
  return new Response(stream, { status, headers: { "Content-Type": "application/json" } });
}
