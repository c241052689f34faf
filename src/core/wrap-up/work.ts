import type { About } from "../history/about";
import type { Content } from "../presets/preset";
import { processorsIn } from "../presets/processors-in";
import { findModel } from "../processors/models";
import type { PartName } from "../strips/parts";
import type { Find, Level } from "./finds";

/* How much work is in what a project has: what was done to it, how long, and how far it is from where one begins. */

/** A change of a project: when, in milliseconds, and what it concerned. */
export interface Told {
  readonly at: number;
  readonly about: Pick<About, "strips" | "parts">;
}

/** What was done to something. */
export interface Spent {
  readonly changes: number;
  readonly minutes: number;
}

export interface Work extends Spent {
  /** Values that are not where their models begin, and plugins. */
  readonly turned: number;
  /** How far the nearest of the library is, 0 to 1; 1 where none is of the same plugins. */
  readonly apart: number;
}

/** Who has not touched anything for so long was elsewhere, in milliseconds. */
const PAUSE = 5 * 60_000;
const MINUTE = 60_000;

/** What is changed where something of a level is worked on. */
const PARTS_OF: Readonly<Record<Level, readonly PartName[]>> = {
  plugin: ["inserts", "source"],
  chain: ["inserts", "source"],
  sends: ["sends"],
  strip: ["inserts", "source", "sends", "level", "pan"],
  set: ["inserts", "source", "sends", "level", "pan", "routing"],
};

/** The time before each change that went into it; what was tried and taken back is work, too. */
const minutesBefore = (told: readonly Told[]): readonly number[] =>
  told.map(({ at }, n) => {
    const before = told[n - 1];
    return before ? Math.min(PAUSE, Math.max(0, at - before.at)) / MINUTE : 0;
  });

/**
 * What was done to each thing of a project, by its history, oldest first. A change of several counts for each of them, and its time is
 * shared among them.
 */
export function readingSpent(told: readonly Told[]): (find: Pick<Find, "level" | "strips">) => Spent {
  const minutes = minutesBefore(told);
  const ofStrip = new Map<string, number[]>();
  for (const [n, { about }] of told.entries())
    for (const { id } of about.strips) {
      const known = ofStrip.get(id);
      if (known) known.push(n);
      else ofStrip.set(id, [n]);
    }
  return ({ level, strips }) => {
    const parts = PARTS_OF[level];
    const numbers = new Set(strips.flatMap((strip) => ofStrip.get(strip) ?? []));
    const some = [...numbers].filter((n) => told[n]!.about.parts.some((part) => parts.includes(part)));
    const time = some.map((n) => {
      const all = told[n]!.about.strips;
      return (minutes[n]! * all.filter(({ id }) => strips.includes(id)).length) / all.length;
    });
    return { changes: some.length, minutes: time.reduce((sum, one) => sum + one, 0) };
  };
}

/** How many values are not where their models begin; a plugin that was put there counts as one. */
export const turnedIn = (content: Content): number =>
  processorsIn(content).reduce((sum, { model, values }) => {
    const specs = findModel(model)?.params ?? [];
    return (
      sum + 1 + specs.filter(({ id, default: begins }) => values[id] !== undefined && values[id] !== begins).length
    );
  }, 0);

/** So many of each are much: what is beyond counts ever less. */
const MUCH = { changes: 12, minutes: 15, turned: 12 };

const share = (x: number, much: number): number => 1 - Math.exp(-x / much);

/** How much work is in something, 0 to 4. Law: more of anything is never less. */
export const weightOf = ({ changes, minutes, turned, apart }: Work): number =>
  share(changes, MUCH.changes) + share(minutes, MUCH.minutes) + share(turned, MUCH.turned) + apart;
