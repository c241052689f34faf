import { afterEach, expect, it } from "vitest";
import { HANDED_AS, handOver, takeBack } from "./handed";
import { hasBody, readJson } from "./route";
import { z } from "zod";

const ADDRESS = "http://127.0.0.1/api/library/undo";
const JSON_TYPE = { "Content-Type": "application/json" };

let key = "";
afterEach(() => takeBack(key));

/** As the front lets a request through: its body is here already, and the request itself is empty. */
function handed(text: string): Request {
  key = handOver(new TextEncoder().encode(text));
  return new Request(ADDRESS, {
    method: "POST",
    headers: { ...JSON_TYPE, "Content-Length": "0", [HANDED_AS]: key },
  });
}

it("a body that was handed over was sent along, and is read", async () => {
  const request = handed('{"n":7}');
  expect(hasBody(request)).toBe(true);
  expect(await readJson(request, z.strictObject({ n: z.int() }))).toEqual({ ok: true, value: { n: 7 } });
});

it("an empty one was not, whichever way it came", () => {
  expect(hasBody(handed(""))).toBe(false);
  expect(hasBody(new Request(ADDRESS, { method: "POST" }))).toBe(false);
  expect(hasBody(new Request(ADDRESS, { method: "POST", headers: { ...JSON_TYPE, "Content-Length": "0" } }))).toBe(
    false,
  );
});

it("one that came past the front was", () => {
  const headers = { ...JSON_TYPE, "Content-Length": "2" };
  expect(hasBody(new Request(ADDRESS, { method: "POST", headers, body: "{}" }))).toBe(true);
});
