import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BODY_LIMIT, checkHeaders, contentPolicy } from "./gate";

const PORT = 4747;
const HOME = { host: `127.0.0.1:${PORT}` };
const status = (headers: Record<string, string>) => checkHeaders(headers, PORT)?.status ?? 200;

describe("who is let in", () => {
  it("is this machine by any of its own names, in any spelling, with this port", () => {
    for (const host of ["127.0.0.1", "localhost", "LOCALHOST", "[::1]"])
      expect(status({ host: `${host}:${PORT}` })).toBe(200);
    for (const host of ["localhost", `localhost:${PORT + 1}`, `127.0.0.2:${PORT}`, `localhost.:${PORT}`, ""])
      expect(status({ host }), host).toBe(403);
    expect(status({})).toBe(403);
  });

  it("is no other name, whatever it is", () => {
    fc.assert(
      fc.property(fc.domain(), fc.integer({ min: 1, max: 65_535 }), (name, port) => {
        fc.pre(name !== "localhost");
        expect(status({ host: `${name}:${port}` })).toBe(403);
        expect(status({ ...HOME, origin: `http://${name}:${port}` })).toBe(403);
      }),
    );
  });

  it("is a page of its own, or what is no page; never another site, an opaque origin, another scheme", () => {
    expect(status({ ...HOME, origin: `http://localhost:${PORT}` })).toBe(200);
    expect(status({ ...HOME, "sec-fetch-site": "same-origin" })).toBe(200);
    expect(status({ ...HOME, "sec-fetch-site": "none" })).toBe(200);
    for (const origin of [
      "null",
      "",
      `https://127.0.0.1:${PORT}`,
      "http://127.0.0.1",
      `http://127.0.0.1:${PORT}.example`,
    ])
      expect(status({ ...HOME, origin }), origin).toBe(403);
    for (const site of ["cross-site", "same-site"]) expect(status({ ...HOME, "sec-fetch-site": site })).toBe(403);
  });

  it("brings no more than the limit, by its own word", () => {
    expect(status({ ...HOME, "content-length": String(BODY_LIMIT) })).toBe(200);
    expect(status({ ...HOME, "content-length": String(BODY_LIMIT + 1) })).toBe(413);
  });
});

describe("the policy of a page", () => {
  it("lets scripts in by their nonce alone, and nothing from elsewhere", () => {
    const rules = new Map(
      contentPolicy("abc")
        .split("; ")
        .map((rule) => [rule.slice(0, rule.indexOf(" ")), rule.slice(rule.indexOf(" ") + 1)]),
    );
    expect(rules.get("script-src")).toBe("'self' 'nonce-abc' 'strict-dynamic'");
    for (const what of ["object-src", "base-uri", "frame-ancestors"]) expect(rules.get(what)).toBe("'none'");
    expect([...rules.values()].join(" ")).not.toMatch(/https?:|\*|unsafe-eval/);
  });
});
