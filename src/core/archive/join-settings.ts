import equal from "fast-deep-equal";
import type { Settings } from "../settings/settings";
import { saidBy } from "./said";

/** What a person has set up, and how often it was changed. */
export interface CountedSettings {
  readonly settings: Settings;
  readonly revision: number;
}

/** Those of the first side, then what only the other has; `keyOf`: what only one can have. */
const united = <T>(first: readonly T[], second: readonly T[], keyOf: (item: T) => string): T[] => {
  const known = new Set(first.map(keyOf));
  const more = second.filter((item) => !known.has(keyOf(item)));
  return [...first, ...more];
};

/**
 * What two sides have set up, together. Where both have set the same thing, that stands which was changed more often; as often, either,
 * but the same from both sides. Laws: from both sides it is the same, but for the plan of backups; with what it gave before it gives that again.
 */
export function joinSettings(own: CountedSettings, theirs: CountedSettings): CountedSettings {
  const isOwnFirst =
    own.revision > theirs.revision || (own.revision === theirs.revision && saidBy(own) >= saidBy(theirs));
  const [{ settings: first, revision }, { settings: second }] = isOwnFirst ? [own, theirs] : [theirs, own];
  const shortcuts = united(first.shortcuts, second.shortcuts, ({ keys }) => keys);
  const settings: Settings = {
    patterns: { ...second.patterns, ...first.patterns },
    searches: united(first.searches, second.searches, ({ id }) => id),
    // A thing has one shortcut, too.
    shortcuts: shortcuts.filter(
      ({ does }, at, all) => all.findIndex((other) => saidBy(other.does) === saidBy(does)) === at,
    ),
    startingPoints: united(first.startingPoints, second.startingPoints, ({ model, strip }) => saidBy([model, strip])),
    apart: united(first.apart, second.apart, (ids) => saidBy(ids)),
    choices: united(first.choices, second.choices, ({ name }) => name),
    lastParts: { ...second.lastParts, ...first.lastParts },
    // Each machine has a plan of its own; one where nothing was ever set up takes theirs.
    backups: own.revision === 0 ? theirs.settings.backups : own.settings.backups,
  };
  // What came together was changed once more: it stands over either.
  return { settings, revision: equal(settings, first) ? revision : Math.max(own.revision, theirs.revision) + 1 };
}
