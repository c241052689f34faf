import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Font } from "fontkit";
import { unpackWoff } from "./woff";

/*
 * The faces in which sheets are set: ours, and one with more letters and signs behind them. All are embedded. pdfkit takes one font
 * for one piece of text, so that a text is parted here into runs.
 */

const require = createRequire(import.meta.url);

/** `regular` and `bold` for words and figures, `display` for what a sheet and a strip are called. */
export type Face = "regular" | "bold" | "display";

/** The files of each face: the first that has a letter sets it. */
const FILES: Record<Face, () => readonly string[]> = {
  regular: () => [
    require.resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff"),
    require.resolve(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff",
    ),
    require.resolve("dejavu-fonts-ttf/ttf/DejaVuSans.ttf"),
  ],
  bold: () => [
    require.resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff"),
    require.resolve(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-700-normal.woff",
    ),
    require.resolve("dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf"),
  ],
  display: () => [
    require.resolve("@fontsource/newsreader/files/newsreader-latin-600-normal.woff"),
    require.resolve("@fontsource/newsreader/files/newsreader-latin-ext-600-normal.woff"),
    require.resolve("dejavu-fonts-ttf/ttf/DejaVuSerif-Bold.ttf"),
    require.resolve("dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf"),
  ],
};

interface Cut {
  readonly file: string;
  readonly bytes: Buffer;
  readonly font: Font;
}

/** The fonts of each face, opened. */
export type Fonts = Record<Face, readonly Cut[]>;

/** Reads and opens all of them. What reads fonts is loaded when a sheet is first wanted: nobody waits for it before. */
export async function openFonts(): Promise<Fonts> {
  const { create } = await import("fontkit");
  const opened = (face: Face): readonly Cut[] =>
    FILES[face]().map((file) => {
      const packed = readFileSync(file);
      const bytes = file.endsWith(".woff") ? unpackWoff(packed) : packed;
      const font = create(bytes);
      if (!("hasGlyphForCodePoint" in font)) throw new Error(`${file} holds several fonts`);
      return { file, bytes, font };
    });
  return { regular: opened("regular"), bold: opened("bold"), display: opened("display") };
}

/** Text that one font can set. */
export interface Run {
  readonly file: string;
  readonly text: string;
}

/** Stands for a letter that none of the fonts has. */
const MISSING = "\u25af";

/** Signs that join letters, or choose how the one before is drawn: they have no shape of their own. */
const BINDING = /[\u200d\ufe0e\ufe0f]/g;

/** A text by the fonts of a face that can set its pieces; what none has is shown as ▯. */
export function runsOf(cuts: readonly Cut[], text: string): readonly Run[] {
  const fallback = cuts.at(-1)!;
  const runs: { file: string; text: string }[] = [];
  for (const letter of text.replaceAll(BINDING, "")) {
    const last = runs.at(-1);
    const cut = cuts.find(({ font }) => font.hasGlyphForCodePoint(letter.codePointAt(0)!));
    const file = (cut ?? fallback).file;
    const shown = cut ? letter : MISSING;
    if (last?.file === file) last.text += shown;
    else runs.push({ file, text: shown });
  }
  return runs;
}
