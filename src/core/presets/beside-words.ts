import { differenceWords } from "../chains/difference-words";
import { PART } from "../strips/parts";
import type { Content } from "./preset";
import { type Beside, compareContents } from "./versions-of-sets";

/** One thing in which two sounds differ. */
export interface BesideLine {
  readonly what: string;
  readonly from: string;
  readonly to: string;
}

/** What is told of one sound, or of one strip of a set. */
export function linesOf({ strip, missing, differences, parts, chain }: Beside): readonly BesideLine[] {
  if (missing !== null) {
    const [from, to] = missing === "left" ? ["not in it", "in it"] : ["in it", "not in it"];
    return [{ what: strip ?? "", from, to }];
  }
  const lines: readonly BesideLine[] = [
    ...differences.map((d) => differenceWords(d, chain)),
    ...parts.map(({ part, from, to }) => ({ what: PART[part].title, from, to })),
  ];
  return strip === null ? lines : lines.map((line) => ({ ...line, what: `${strip}: ${line.what}` }));
}

/** One thing in which some of several sounds differ from the first, and what each says of it. */
export interface ValuesLine {
  readonly what: string;
  /** In the order of the sounds. */
  readonly values: readonly string[];
}

/**
 * Several sounds beside each other. Law: where one says something else than the first, that is what a comparison of the two
 * tells; where it says the same, a comparison tells nothing.
 */
export function valuesBeside(contents: readonly Content[]): readonly ValuesLine[] {
  const [first, ...others] = contents;
  if (!first) return [];
  const rows = new Map<string, { readonly what: string; readonly values: string[] }>();
  for (const [n, other] of others.entries()) {
    const times = new Map<string, number>();
    for (const { what, from, to } of compareContents(first, other).flatMap(linesOf)) {
      const name = `${what}\n${from}`;
      const again = (times.get(name) ?? 0) + 1;
      times.set(name, again);
      const key = `${name}\n${again}`;
      const row = rows.get(key) ?? { what, values: contents.map(() => from) };
      row.values[n + 1] = to;
      rows.set(key, row);
    }
  }
  return [...rows.values()];
}
