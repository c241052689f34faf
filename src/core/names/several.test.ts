import { describe, expect, it } from "vitest";
import { several, severalWords } from "./several";

describe("several names in one line", () => {
  it("are taken apart, without blanks and without what is empty", () => {
    expect(several(" Copper Heron;; Tidal Clocks ;")).toEqual(["Copper Heron", "Tidal Clocks"]);
    expect(several(undefined)).toEqual([]);
  });

  it("are read with commas; one name stays what it is", () => {
    expect(severalWords("Copper Heron; Tidal Clocks")).toBe("Copper Heron, Tidal Clocks");
    expect(severalWords("Voice, close")).toBe("Voice, close");
    expect(severalWords("")).toBe("");
  });
});
