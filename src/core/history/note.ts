import { counted } from "../names/count";
import type { Line, ProjectsBeside, StripBeside } from "./beside";

/** What came between two moments: what differs, and the presets that were brought in, by name. */
interface Between {
  readonly beside: ProjectsBeside;
  readonly presets: readonly string[];
}

const sayLine = ({ what, from, to }: Line): string => `${what} ${from} → ${to}`;

function sayStrip({ name, kind, left, right, moved, cells }: StripBeside): string {
  if (!left) return `${name}: new ${kind} strip.`;
  if (!right) return `${name}: taken out.`;
  const was = left.look.name === name ? [] : [`called ${left.look.name} before`];
  const lines = cells.flatMap((cell) => (cell.part === "look" && was.length > 0 ? [] : cell.lines.map(sayLine)));
  return `${name}: ${[...was, ...lines, ...(moved ? ["moved"] : [])].join("; ")}.`;
}

/**
 * What was done between two moments, in sentences, for the client or for oneself: first what is said of the whole, then strip by
 * strip, then what was applied. Law: every strip that differs has a line of its own, and no other has.
 */
export function noteOf({ beside: { details, strips }, presets }: Between): string {
  if (details.length + strips.length === 0) return "Nothing differs.";
  const whole = details.map((line) => `The project: ${sayLine(line)}.`);
  const applied = presets.length > 0 ? [`Applied: ${presets.join(", ")}.`] : [];
  return [...whole, ...strips.map(sayStrip), ...applied, `${counted(strips.length, "strip")} in all.`].join("\n");
}
