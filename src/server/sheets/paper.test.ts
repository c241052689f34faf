import { describe, expect, it } from "vitest";
import { WIDTH, type Style, linesOf, newPaper, widthOf } from "./paper";

const STYLE: Style = { face: "regular", size: 9 };

describe("a text in lines", async () => {
  const paper = await newPaper({ title: "Lines", printedAt: new Date(0) });
  const TEXTS = [
    "",
    "one",
    "Cut follows the booth's rumble. The delay is hardly there; it keeps the voice from sounding sealed in.",
    "A".repeat(300),
    `${"long ".repeat(60)}${"W".repeat(120)} end`,
    "first\n\nthird\r\nfourth",
    "−∞ dB Привет ".repeat(20),
  ];

  it.each([40, 80, 200, WIDTH])("of %d points is never wider, and loses no letter", (width) => {
    for (const text of TEXTS) {
      const lines = linesOf(paper, text, STYLE, width);
      for (const line of lines) expect(widthOf(paper, line, STYLE)).toBeLessThanOrEqual(width);
      expect(lines.join("").replaceAll(/\s/g, "")).toBe(text.replaceAll(/\s/g, ""));
    }
  });

  it("keeps the lines that were made by hand", () => {
    expect(linesOf(paper, "first\n\nthird\r\nfourth", STYLE, WIDTH)).toEqual(["first", "", "third", "fourth"]);
  });

  it("breaks only words that are wider than a line", () => {
    expect(linesOf(paper, "in at a", STYLE, widthOf(paper, "in at", STYLE))).toEqual(["in at", "a"]);
  });
});
