import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { z } from "zod";
import { parseWith } from "@/core/documents/problem";
import { parseInTurns, parseJson } from "./json";

const bytesOf = (text: string) => new TextEncoder().encode(text);
const read = async (text: string) => parseJson(bytesOf(text));
const refusal = async (text: string | Uint8Array) => {
  const read = await parseJson(typeof text === "string" ? bytesOf(text) : text);
  return read.ok ? null : [read.error.code, read.error.path];
};

/** A list that is long enough to be read in pieces. */
const PADDING = JSON.stringify(Array.from({ length: 5000 }, (_, n) => `a word of the padding, the ${n}th`));

describe("a body of JSON", () => {
  it("is what was sent, small or in pieces, whatever stands in it", async () => {
    const anything = fc.jsonValue({ maxDepth: 5, stringUnit: "binary" });
    let pieces = 0;
    await fc.assert(
      fc.asyncProperty(anything, fc.array(anything, { maxLength: 5 }), async (one, list) => {
        const text = JSON.stringify({ one, list, deep: { again: [list, one], none: [] } });
        fc.pre(!text.includes("__proto__"));
        const whole = JSON.parse(text) as object;
        expect(await read(text)).toEqual({ ok: true, value: whole });
        const padded = `{"padding": ${PADDING}, "inner": ${text} , "list":[ ] }`;
        pieces += padded.length > 128 * 1024 ? 1 : 0;
        expect(await read(padded)).toEqual({ ok: true, value: JSON.parse(padded) as object });
        expect(await read(`[${text},${PADDING}]`)).toEqual({ ok: true, value: [whole, JSON.parse(PADDING)] });
      }),
      { numRuns: 150 },
    );
    expect(pieces).toBeGreaterThan(50);
  });

  it("that is none is refused, in pieces as in one", async () => {
    const broken = [
      "",
      "{",
      '{"a":1,}',
      "[1,]",
      "[,]",
      "[,1]",
      '{"a":[1,,2]}',
      "[1]]",
      "nul",
      '{"a" 1}',
      '["\\u00zz"]',
      "[01]",
    ];
    for (const text of broken) {
      expect(await refusal(text), text).toEqual(["notUnderstood", undefined]);
      expect(await refusal(`{"padding":${PADDING},"x":${text}}`), text).toEqual(["notUnderstood", undefined]);
      expect(await refusal(`{"padding":${PADDING}} ${text || "]"}`), text).toEqual(["notUnderstood", undefined]);
    }
  });

  it("in which something could not be kept as it is is refused with the field", async () => {
    expect(await refusal('{"a":["x","\\ud800"]}')).toEqual(["notUnderstood", "a[1]"]);
    expect(await refusal('{"a":{"\\udc00":1}}')).toEqual(["notUnderstood", "a.\udc00"]);
    expect(await refusal('{"values":{"__proto__":1}}')).toEqual(["notUnderstood", "values.__proto__"]);
    expect(await refusal('{"a":1e999}')).toEqual(["notUnderstood", "a"]);
    expect(await refusal(Uint8Array.of(34, 0xff, 34))).toEqual(["notUnderstood", undefined]);
    expect(await refusal(Uint8Array.of(34, 0xe2, 0x82, 34))).toEqual(["notUnderstood", undefined]);
    expect(await read('{"a":"\\ud83e\\udd81 \\u0000 \\ufeff"}')).toEqual({ ok: true, value: { a: "🦁 \0 \ufeff" } });
  });

  it("of nothing but openings, or of more values than are ever kept, is refused before it is read", async () => {
    expect(await refusal("[".repeat(70) + "]".repeat(70))).toEqual(["notUnderstood", undefined]);
    expect(await refusal("[".repeat(4_000_000))).toEqual(["notUnderstood", undefined]);
    expect(await refusal(`{"names":[${"{},".repeat(200_000)}{}]}`)).toEqual(["tooLarge", undefined]);
    const keys = Array.from({ length: 100_000 }, (_, n) => `"k${n}":1`).join();
    expect(await refusal(`{${keys}}`)).toEqual(["tooLarge", undefined]);
    expect(await refusal(`{"list":[{${keys}}]}`)).toEqual(["tooLarge", undefined]);
    const lists = Array.from({ length: 100_000 }, (_, n) => `"k${n}":[]`).join();
    expect(await refusal(`{${lists}}`)).toEqual(["tooLarge", undefined]);
  });

  it("is checked in turns as it is in one go", async () => {
    const schema = z.strictObject({
      name: z.string(),
      list: z
        .array(z.strictObject({ level: z.number().min(0), tags: z.array(z.string()).optional() }))
        .min(1)
        .max(90),
      inner: z.strictObject({ many: z.array(z.string().trim()).max(300) }).optional(),
    });
    const element = fc.record({ level: fc.integer({ min: -1, max: 200 }) });
    const long = fc.array(
      fc.oneof({ weight: 400, arbitrary: fc.record({ level: fc.nat() }) }, element, fc.constant(null)),
      {
        minLength: 0,
        maxLength: 100,
        size: "max",
      },
    );
    const many = fc.array(fc.constant(" x "), { minLength: 40, maxLength: 80, size: "max" });
    const body = fc.record(
      { name: fc.oneof(fc.string(), fc.nat()), list: long, inner: fc.record({ many }), more: fc.nat(3) },
      { requiredKeys: ["list"] },
    );
    const seen = { ok: 0, refused: 0 };
    await fc.assert(
      fc.asyncProperty(body, async (data) => {
        const [inTurns, atOnce] = [await parseInTurns(schema, data), parseWith(schema, data)];
        expect(inTurns.ok).toBe(atOnce.ok);
        seen[atOnce.ok ? "ok" : "refused"] += 1;
        if (atOnce.ok) expect(inTurns).toEqual(atOnce);
      }),
      { numRuns: 300 },
    );
    expect(Math.min(seen.ok, seen.refused)).toBeGreaterThan(10);
    const bad = { name: "x", list: Array.from({ length: 80 }, (_, n) => ({ level: n === 70 ? -1 : n })) };
    expect(await parseInTurns(schema, bad)).toMatchObject({ ok: false, error: { path: "list[70].level" } });
  });
});
