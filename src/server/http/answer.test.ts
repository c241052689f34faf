import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { jsonAnswer } from "./answer";

describe("an answer in JSON", () => {
  it("is what the language writes, with lists of any length", async () => {
    const list = fc.oneof(
      fc.array(fc.jsonValue(), { maxLength: 5 }),
      fc.array(fc.jsonValue({ maxDepth: 1 }), { minLength: 101, maxLength: 400, size: "max" }),
    );
    const body = fc.dictionary(fc.string({ unit: "binary" }), fc.oneof(list, fc.jsonValue()), { maxKeys: 4 });
    let long = 0;
    await fc.assert(
      fc.asyncProperty(body, async (value) => {
        const answer = jsonAnswer(value, 201);
        expect([answer.status, answer.headers.get("content-type")]).toEqual([201, "application/json"]);
        expect(await answer.json()).toEqual(JSON.parse(JSON.stringify(value)));
        long += Object.values(value).some((part) => Array.isArray(part) && part.length > 100) ? 1 : 0;
      }),
      { numRuns: 100 },
    );
    expect(long).toBeGreaterThan(20);
  });

  it("leaves out what is not there, and may be a list of thousands by itself", async () => {
    const rows = Array.from({ length: 5000 }, (_, n) => ({ n, text: "x".repeat(n % 90), none: undefined }));
    expect(await jsonAnswer({ none: undefined, rows }, 200).text()).toBe(JSON.stringify({ rows }));
    expect(await jsonAnswer({ none: undefined }, 200).text()).toBe("{}");
    expect(await jsonAnswer(rows, 200).text()).toBe(JSON.stringify(rows));
  });
});
