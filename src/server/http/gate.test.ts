import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ENDPOINTS } from "@/contracts/endpoints";
import { BODY_LIMIT, checkHead, contentPolicy } from "./gate";

const PORT = 4747;
const HOME = { host: `127.0.0.1:${PORT}` };
const at = (method: string, url: string, headers: Record<string, string> = HOME) =>
  checkHead({ method, url, headers }, PORT)?.status ?? 200;
const status = (headers: Record<string, string>) => at("POST", "/api/presets", headers);

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
    for (const site of ["cross-site", "same-site", "nearby", ""])
      expect(status({ ...HOME, "sec-fetch-site": site })).toBe(403);
  });

  it("brings no more than the limit, by its own word", () => {
    expect(status({ ...HOME, "content-length": String(BODY_LIMIT) })).toBe(200);
    expect(status({ ...HOME, "content-length": String(BODY_LIMIT + 1) })).toBe(413);
  });
});

describe("what is asked for", () => {
  it("is an address that there is, by a method that it takes; others are told in JSON what there is", () => {
    for (const { method, path } of ENDPOINTS)
      expect(at(method.toUpperCase(), path.replaceAll(/\{\w+\}/g, "x%20y"))).toBe(200);
    expect(at("HEAD", "/api/presets")).toBe(200);
    expect(at("GET", "/api")).toBe(404);
    expect(at("GET", "/api/presets/a/b/c")).toBe(404);
    expect(at("POST", "/api/nothing?x=1")).toBe(404);
    expect(at("PUT", "/api/presets")).toBe(405);
    expect(at("POST", "/library")).toBe(405);
    expect(checkHead({ method: "DELETE", url: "/api/folders", headers: HOME }, PORT)).toMatchObject({
      status: 405,
      headers: { Allow: "GET, HEAD, POST" },
      body: { error: { code: "wrongMethod", message: "This address takes GET, HEAD, POST, not DELETE." } },
    });
    for (const method of ["TRACE", "OPTIONS", "PURGE"]) expect(at(method, "/api/presets")).toBe(405);
  });

  it("is a path in letters: no other server's address, no %xx that is none", () => {
    for (const url of [`http://127.0.0.1:${PORT}/api/health`, "http://evil.example/", "*", ""])
      expect(at("GET", url), url).toBe(400);
    for (const url of ["/api/presets/%ff", "/api/presets?q=%c3", "/%", "/library?q=%e2%82"])
      expect(at("GET", url), url).toBe(400);
    expect(at("GET", "/api/presets?q=%c3%a9")).toBe(200);
  });

  it("brings a body only where one is read, as it is", () => {
    const length = { ...HOME, "content-length": "2" };
    expect(at("GET", "/api/presets", length)).toBe(400);
    expect(at("HEAD", "/library", { ...HOME, "transfer-encoding": "chunked" })).toBe(400);
    expect(at("GET", "/api/presets", { ...HOME, "content-length": "0" })).toBe(200);
    expect(at("POST", "/api/presets", { ...length, "content-encoding": "gzip" })).toBe(415);
    expect(at("POST", "/api/presets", { ...length, "content-encoding": "identity" })).toBe(200);
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
