import { z } from "zod";
import type { ApiError } from "@/contracts/errors";
import { type Problem, formatPath, parseWith } from "@/core/documents/problem";
import { type Result, fail, ok } from "@/core/result";
import { takingTurns } from "../turns";

/*
 * JSON from outside, read so that no body holds up another request, and so that what is kept is what was sent: to the
 * code point, or not at all. A large body is cut at the elements of its outermost lists, and these are read in turns.
 */

/** Bodies below this are read in one go, in bytes. */
const SMALL = 128 * 1024;
/** Values that one piece, read in one go, may hold: more would take longer than others ought to wait. */
const MOST_IN_PIECE = 16_384;
/** Pieces that one body may have: beyond any list that is taken. */
const MOST_PIECES = 100_000;
/** Lists and records within each other. */
const DEEPEST = 64;

const [QUOTE, BACKSLASH, COMMA, OPEN_LIST, CLOSE_LIST, OPEN_RECORD, CLOSE_RECORD] = [34, 92, 44, 91, 93, 123, 125];

const notWhole = fail<ApiError>({ code: "notUnderstood", message: "The body is not whole JSON." });
const tooDeep = fail<ApiError>({
  code: "notUnderstood",
  message: `The body has lists and records more than ${DEEPEST} deep within each other.`,
});
const tooMuch = fail<ApiError>({
  code: "tooLarge",
  message: "The body holds more values than anything that can be kept. Nothing was changed.",
});

type Stretch = readonly [from: number, to: number];

interface Pieces {
  /** What stands around the outermost lists: up to the first, between one and the next, and behind the last. */
  readonly frame: readonly Stretch[];
  readonly elements: readonly Stretch[];
  /** How many of the elements stand in each list and those before it. */
  readonly ends: readonly number[];
}

/** Where a large body can be cut. Bytes beyond ASCII stand within strings only, and are passed over with them. */
class Cutter {
  private depth = 0;
  /** How deep the list is whose elements are cut out; 0 for none. */
  private list = 0;
  private inString = false;
  private isEscaped = false;
  /** Values of the frame, and of the element that is being read. */
  private readonly values = { frame: 0, element: 0 };
  private from = 0;
  private frameFrom = 0;
  readonly frame: Stretch[] = [];
  readonly elements: Stretch[] = [];
  readonly ends: number[] = [];
  fault: typeof tooDeep | null = null;

  read(bytes: Uint8Array, from: number, to: number): void {
    for (let at = from; at < to && !this.fault; at++) {
      const byte = bytes[at]!;
      if (this.inString) this.passString(byte);
      else this.pass(byte, at);
    }
  }

  end(length: number): void {
    this.frame.push([this.frameFrom, length]);
  }

  private passString(byte: number): void {
    if (this.isEscaped) this.isEscaped = false;
    else if (byte === BACKSLASH) this.isEscaped = true;
    else if (byte === QUOTE) this.inString = false;
  }

  private pass(byte: number, at: number): void {
    if (byte === QUOTE) this.inString = true;
    else if (byte === COMMA) this.passComma(at);
    else if (byte === OPEN_LIST || byte === OPEN_RECORD) this.open(byte, at);
    else if (byte === CLOSE_LIST || byte === CLOSE_RECORD) this.close(at);
  }

  private passComma(at: number): void {
    this.count();
    if (this.list > 0 && this.depth === this.list) this.cut(at);
  }

  private open(byte: number, at: number): void {
    this.count();
    if (++this.depth > DEEPEST) this.fault = tooDeep;
    if (byte === OPEN_LIST && this.list === 0) this.openList(at);
  }

  private close(at: number): void {
    if (this.list > 0 && this.depth === this.list) this.closeList(at);
    this.depth -= 1;
  }

  private count(): void {
    if (++this.values[this.list > 0 ? "element" : "frame"] > MOST_IN_PIECE) this.fault = tooMuch;
  }

  private openList(at: number): void {
    this.list = this.depth;
    this.frame.push([this.frameFrom, at + 1]);
    this.from = at + 1;
  }

  private cut(at: number): void {
    this.elements.push([this.from, at]);
    if (this.elements.length > MOST_PIECES) this.fault = tooMuch;
    this.from = at + 1;
    this.values.element = 0;
  }

  private closeList(at: number): void {
    this.elements.push([this.from, at]);
    this.ends.push(this.elements.length);
    this.list = 0;
    this.frameFrom = at;
    this.values.element = 0;
  }
}

/** Bytes that are looked at in one go while cutting: nearly each of them may begin a value. */
const STRIDE = 16 * 1024;

async function cutUp(bytes: Uint8Array): Promise<Result<Pieces, ApiError>> {
  const turn = takingTurns();
  const cutter = new Cutter();
  for (let at = 0; at < bytes.length; at += STRIDE) {
    cutter.read(bytes, at, Math.min(bytes.length, at + STRIDE));
    if (cutter.fault) return cutter.fault;
    await turn();
  }
  cutter.end(bytes.length);
  return ok(cutter);
}

const decoder = new TextDecoder("utf-8", { fatal: true, ignoreBOM: true });

/** What a letter sequence says in UTF-8 and JSON; throws where it says nothing in either. */
const parseBytes = (bytes: Uint8Array): unknown => JSON.parse(decoder.decode(bytes));

/**
 * A large body in pieces: what stands around its outermost lists with the numbers of the elements in their place, and the
 * elements each by itself.
 */
async function parsePieces(bytes: Uint8Array, { frame, elements, ends }: Pieces): Promise<unknown> {
  const turn = takingTurns();
  const parsed: unknown[] = [];
  for (const [from, to] of elements) {
    const piece = bytes.subarray(from, to);
    // An empty list has one empty element; an empty one among others is no JSON.
    parsed.push(isBlank(piece) ? NOTHING : parseBytes(piece));
    await turn();
  }
  const around = frame.map(([from, to]) => decoder.decode(bytes.subarray(from, to)));
  const numbers = ends.map((end, n) => `${ends[n - 1] ?? 0},${end}`);
  return fillIn(JSON.parse(around.map((text, n) => text + (numbers[n] ?? "")).join("")), parsed);
}

const NOTHING = Symbol("nothing");
const isBlank = (bytes: Uint8Array): boolean =>
  bytes.every((byte) => byte === 32 || byte === 9 || byte === 10 || byte === 13);

/** Puts elements where their numbers, from and up to, stand in a list. */
function fillIn(frame: unknown, parsed: readonly unknown[]): unknown {
  if (Array.isArray(frame)) {
    const [from, to] = frame as [number, number];
    const elements = parsed.slice(from, to);
    if (elements.length === 1 && elements[0] === NOTHING) return [];
    if (elements.includes(NOTHING)) throw new SyntaxError("An element is missing.");
    return elements;
  }
  if (typeof frame !== "object" || frame === null) return frame;
  for (const [key, value] of Object.entries(frame))
    if (typeof value === "object" && value !== null)
      Object.defineProperty(frame, key, {
        value: fillIn(value, parsed),
        writable: true,
        enumerable: true,
        configurable: true,
      });
  return frame;
}

interface Seen {
  readonly value: unknown;
  readonly key: PropertyKey | null;
  readonly above: Seen | null;
  readonly depth: number;
}

function pathOf(seen: Seen): readonly PropertyKey[] {
  const path: PropertyKey[] = [];
  for (let at: Seen | null = seen; at?.key != null; at = at.above) path.unshift(at.key);
  return path;
}

/** The first value that could not be kept as it was sent, and why; null for none. */
async function findUnfaithful(data: unknown): Promise<ApiError | null> {
  const turn = takingTurns();
  const left: Seen[] = [{ value: data, key: null, above: null, depth: 0 }];
  for (let count = 0; left.length > 0; count++) {
    const seen = left.pop()!;
    const fault = whyUnfaithful(seen);
    if (fault) return fault;
    const { value, depth } = seen;
    if (typeof value === "object" && value !== null)
      for (const key of Array.isArray(value) ? value.keys() : Object.keys(value))
        left.push({ value: value[key as never], key, above: seen, depth: depth + 1 });
    if (count % 1000 === 0) await turn();
  }
  return null;
}

function whyUnfaithful(seen: Seen): ApiError | null {
  const { value, key } = seen;
  if (typeof key === "string" && (key === "__proto__" || !isWellFormed(key)))
    return unfaithful(pathOf(seen), "No field may be called so.");
  if (typeof value === "string" && !isWellFormed(value))
    return unfaithful(pathOf(seen), "The text holds half a letter: a surrogate that stands alone.");
  if (typeof value === "number" && !Number.isFinite(value))
    return unfaithful(pathOf(seen), "The number is larger than any that can be kept.");
  return seen.depth > DEEPEST ? tooDeep.error : null;
}

const isWellFormed = (text: string): boolean => !/\p{Surrogate}/u.test(text);

const unfaithful = (path: readonly PropertyKey[], message: string): ApiError => ({
  code: "notUnderstood",
  message,
  path: formatPath(path),
});

/** The plain data of a body, exactly as it was sent; or why it is none. */
export async function parseJson(bytes: Uint8Array): Promise<Result<unknown, ApiError>> {
  let data: unknown;
  try {
    if (bytes.length < SMALL) data = parseBytes(bytes);
    else {
      const pieces = await cutUp(bytes);
      if (!pieces.ok) return pieces;
      data = await parsePieces(bytes, pieces.value);
    }
  } catch (error) {
    if (error instanceof TypeError) return fail({ code: "notUnderstood", message: "The body is not in UTF-8." });
    return notWhole;
  }
  const unfaithfulAt = await findUnfaithful(data);
  return unfaithfulAt ? fail(unfaithfulAt) : ok(data);
}

/** Lists that are longer are checked element by element, in turns. */
const LONG = 50;

/**
 * As `parseWith`, but long lists give way to others between their elements. A list is checked for its length first, and no
 * further than its first faulty element.
 */
export async function parseInTurns<T>(
  schema: z.ZodType<T>,
  data: unknown,
  at: readonly PropertyKey[] = [],
): Promise<Result<T, Problem>> {
  if (!(schema instanceof z.ZodObject) || typeof data !== "object" || data === null) return parseWith(schema, data, at);
  const loose: Record<string, z.ZodType> = {};
  const checked: Record<string, unknown> = {};
  const parts = new Map<string, z.ZodType>(Object.entries(schema.shape));
  for (const [key, part] of parts) {
    const given: unknown = Object.hasOwn(data, key) ? data[key as never] : undefined;
    const parsed = await parsePart(part, given, [...at, key]);
    if (!parsed) continue;
    if (!parsed.ok) return parsed;
    checked[key] = parsed.value;
    loose[key] = z.any();
  }
  const whole: Result<unknown, Problem> = parseWith(schema.safeExtend(loose), data, at);
  return whole.ok ? ok({ ...(whole.value as object), ...checked } as T) : whole;
}

/** null for what is as well checked with all the rest. */
async function parsePart(
  part: z.ZodType,
  given: unknown,
  at: readonly PropertyKey[],
): Promise<Result<unknown, Problem> | null> {
  if (part instanceof z.ZodObject) return given === undefined ? null : parseInTurns(part, given, at);
  if (!(part instanceof z.ZodArray) || !Array.isArray(given) || given.length <= LONG) return null;
  const length = parseWith(anyOf(part), given, at);
  return length.ok ? parseElements(part.element as z.ZodType, given, at) : length;
}

/** A list of the same lengths, of anything. */
const anyOf = (list: z.ZodArray): z.ZodType => z.array(z.any()).check(...((list.def.checks ?? []) as never[]));

async function parseElements(
  element: z.ZodType,
  given: readonly unknown[],
  at: readonly PropertyKey[],
): Promise<Result<unknown[], Problem>> {
  const turn = takingTurns();
  const parsed: unknown[] = [];
  for (const [n, one] of given.entries()) {
    const result = parseWith(element, one, [...at, n]);
    if (!result.ok) return result;
    parsed.push(result.value);
    await turn();
  }
  return ok(parsed);
}
