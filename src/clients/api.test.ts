import { afterEach, describe, expect, it, vi } from "vitest";
import * as api from "./api";

interface Asked {
  readonly address: string;
  readonly init: RequestInit;
}

let asked: Asked[] = [];

/** The server, answering one thing to whatever is asked. */
function answers(answer: () => Promise<Response>): void {
  asked = [];
  vi.stubGlobal("fetch", (address: string, init: RequestInit) => {
    asked.push({ address, init });
    return answer();
  });
}

const json =
  (body: unknown, status = 200) =>
  () =>
    Promise.resolve(Response.json(body, { status }));

afterEach(() => vi.unstubAllGlobals());

describe("asking the server", () => {
  it("writes what is looked for into the address, and leaves out what is not said", async () => {
    answers(json({ items: [] }));
    await api.listPresets({ q: "a&b = c", folder: undefined, only: "", limit: 5 });
    expect(asked[0]).toMatchObject({ address: "/api/presets?q=a%26b+%3D+c&limit=5", init: { method: "GET" } });
    expect(asked[0]!.init.body).toBeUndefined();
  });

  it("writes ids so that none leads elsewhere", async () => {
    answers(json({}));
    await api.getPreset("../projects/neap?tide#1", 3);
    const { pathname, search, hash } = new URL(asked[0]!.address, "http://127.0.0.1");
    expect(pathname).toBe("/api/presets/..%2Fprojects%2Fneap%3Ftide%231");
    expect([search, hash]).toEqual(["?version=3", ""]);
  });

  it("sends bodies as JSON, and keeps nothing of the answers", async () => {
    answers(json({ history: { undo: null, redo: null } }));
    await api.fileBy("artist", ["rim"]);
    expect(asked[0]!.init).toMatchObject({ cache: "no-store", headers: { "Content-Type": "application/json" } });
    expect(JSON.parse(asked[0]!.init.body as string)).toEqual({ by: "artist", ids: ["rim"] });
  });
});

describe("what goes wrong", () => {
  const failureOf = async () => {
    const error: unknown = await api.listProjects().catch((e: unknown) => e);
    if (!(error instanceof api.ApiFailure)) throw new Error("It was no failure of the server.");
    return error;
  };

  it("is told in the words of the server, with their code and path", async () => {
    answers(json({ error: { code: "refused", message: "That name is taken.", path: "name" } }, 422));
    const { error, message } = await failureOf();
    expect(message).toBe("That name is taken.");
    expect(error).toEqual({ code: "refused", message: "That name is taken.", path: "name" });
  });

  it.each([["the server is gone", () => Promise.reject(new TypeError("Failed to fetch"))]])(
    "is that Diathesis does not answer, where %s",
    async (_, answer) => {
      answers(answer);
      const { error, message } = await failureOf();
      expect(error.code).toBe("unreachable");
      expect(message).toContain("what was saved is on disk");
    },
  );

  it.each([
    ["is something else", () => Promise.resolve(new Response("<html>", { status: 502 }))],
    ["says nothing", json({}, 500)],
    ["is nothing", json(null, 500)],
  ])("is not that Diathesis does not answer, where the answer %s", async (_, answer) => {
    answers(answer);
    const { error, message } = await failureOf();
    expect(error.code).toBe("internal");
    expect(message).toMatch(/did not say why \(50[02]\)/);
  });
});
