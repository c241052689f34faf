import { describe, expect, it } from "vitest";
import { openFonts, runsOf } from "./fonts";

describe("text that is parted by fonts", async () => {
  const { regular, bold, display } = await openFonts();
  const shown = (text: string) => runsOf(regular, text);

  it("stays whole where ours has every letter", () => {
    expect(shown("Threshold −18.0 dB, “Kärntnertor” ½")).toHaveLength(1);
    expect(shown("")).toEqual([]);
  });

  it("goes on in another for what ours has not, letter by letter, and comes back", () => {
    const runs = shown("−∞ dB at 600 Ω");
    expect(runs.map(({ text }) => text)).toEqual(["−", "∞", " dB at 600 ", "Ω"]);
    expect(new Set(runs.map(({ file }) => file)).size).toBe(2);
    expect(
      shown("Šárka")
        .map(({ text }) => text)
        .join(""),
    ).toBe("Šárka");
  });

  it.each(["Привет", "Αθήνα", "→ ♯ ♭ ∞ Ω", "שלום"])("sets %s in each face", (text) => {
    for (const face of [regular, bold, display])
      expect(
        runsOf(face, text)
          .map((run) => run.text)
          .join(""),
      ).not.toContain("▯");
  });

  it("shows that a letter is missing, and lets go of what was only bound to it", () => {
    expect(
      shown("a声b")
        .map(({ text }) => text)
        .join(""),
    ).toBe("a▯b");
    expect(
      shown("👩‍🎤!")
        .map(({ text }) => text)
        .join(""),
    ).toBe("▯▯!");
  });
});
