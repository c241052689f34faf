import { describe, expect, it } from "vitest";
import type { PlannedMatch } from "../plan-shape";
import { mayGoOnto } from "./alike";
import { putOnto } from "./exchange";

const match = (id: string, answer: string, kind: PlannedMatch["kind"] = "audio"): PlannedMatch => ({
  id,
  saved: id,
  name: id,
  kind,
  answer,
  strip: answer.startsWith("strip:") ? answer.slice(6) : null,
  reason: "same name",
  confidence: 1,
});
const MATCHES = [
  match("match:0:kick", "strip:kick"),
  match("match:0:rim", "strip:snare"),
  match("match:0:far", "new"),
  match("match:1:kick", "strip:kick"),
];

describe("a strip of a set that is put onto one here", () => {
  it("goes there, and what went there goes to where it went", () => {
    const put = (id: string, strip: string) => putOnto(MATCHES, id, strip);
    expect(put("match:0:kick", "snare")).toEqual({ "match:0:kick": "strip:snare", "match:0:rim": "strip:kick" });
    expect(put("match:0:far", "snare")).toEqual({ "match:0:far": "strip:snare", "match:0:rim": "new" });
    expect(put("match:0:rim", "room")).toEqual({ "match:0:rim": "strip:room" });
    expect(put("match:0:rim", "snare")).toEqual({});
    // Another set may bring something to the same strip.
    expect(put("match:1:kick", "snare")).toEqual({ "match:1:kick": "strip:snare" });
  });

  it("stands as it stood when it is put back", () => {
    const after = (matches: readonly PlannedMatch[], answers: Readonly<Record<string, string>>) =>
      matches.map((one) => ({ ...one, answer: answers[one.id] ?? one.answer }));
    const there = after(MATCHES, putOnto(MATCHES, "match:0:kick", "snare"));
    expect(after(there, putOnto(there, "match:0:kick", "kick"))).toEqual(MATCHES);
  });

  it("is a bus where that is one", () => {
    expect(mayGoOnto({ kind: "return" }, { kind: "group" })).toBe(true);
    expect(mayGoOnto({ kind: "return" }, { kind: "audio" })).toBe(false);
    expect(mayGoOnto({ kind: "audio" }, { kind: "instrument" })).toBe(true);
    expect(mayGoOnto({ kind: "audio" }, { kind: "folder" })).toBe(false);
  });
});
