/** Keys that a browser or the system keeps for itself: a page never hears of them, or must not take them. */
const BROWSERS_OWN = new Set([
  "Ctrl+T",
  "Ctrl+N",
  "Ctrl+W",
  "Ctrl+Tab",
  "Ctrl+Shift+T",
  "Ctrl+Shift+N",
  "Ctrl+Shift+W",
  "Ctrl+Shift+Tab",
  "Ctrl+L",
  "Ctrl+R",
  "Ctrl+Shift+R",
  "Ctrl+P",
  "Ctrl+H",
  "Ctrl+J",
  "Ctrl+D",
  "Ctrl+F",
  "Ctrl+C",
  "Ctrl+V",
  "Ctrl+X",
  "Alt+F4",
  "Alt+Tab",
  "F1",
  "F3",
  "F5",
  "F6",
  "F7",
  "F11",
  "F12",
  "Tab",
  "Shift+Tab",
]);

/** What hands know them for, whether a screen has it or not. */
const KEPT_FOR: Readonly<Record<string, string>> = { M: "mute", S: "solo" };

/** What a key does, for telling with what another would clash. */
export interface KeyUse {
  readonly keys: string;
  readonly title: string;
}

/** The presses of "Q V", one after the other. */
export const pressesOf = (keys: string): readonly string[] => keys.split(" ").filter((press) => press !== "");

/** Most presses of one shortcut. */
const MOST_PRESSES = 2;

/**
 * Why keys cannot be given, null where they can: they are no one or two presses, the browser's, kept for something, used, or
 * begin or follow another shortcut so that one of the two could never be reached.
 */
export function findKeyProblem(keys: string, used: readonly KeyUse[]): string | null {
  const presses = pressesOf(keys);
  const [first] = presses;
  if (first === undefined || presses.length > MOST_PRESSES) return "Press one key, or two one after the other.";
  const owned = presses.find((press) => BROWSERS_OWN.has(press));
  if (owned !== undefined) return `The browser keeps ${owned} for itself.`;
  const kept = presses.find((press) => KEPT_FOR[press] !== undefined);
  if (kept !== undefined) return `${kept} is kept for ${KEPT_FOR[kept]}.`;
  const written = presses.join(" ");
  const same = used.find((use) => use.keys === written);
  if (same) return `${written} is “${same.title}” already.`;
  const shorter = used.find((use) => presses.length > 1 && use.keys === first);
  if (shorter) return `${first} alone is “${shorter.title}”: it would come before the second press.`;
  const longer = used.find((use) => use.keys.startsWith(`${written} `));
  return longer ? `${written} begins “${longer.title}”, which could not be reached any more.` : null;
}
