import { type Result, fail, ok } from "../result";

/** "1:02", "1:00:05": a time in a recording, in seconds, to the second. */
export function formatTime(seconds: number): string {
  const whole = Math.round(seconds);
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (n: number) => String(n).padStart(2, "0");
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}

/** Reads "90", "1:30", "1:00:05" as seconds. The error is a sentence. */
export function parseTime(typed: string): Result<number, string> {
  const match = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:[.,]\d+)?)$/.exec(typed.trim());
  if (!match) return fail(`“${typed.trim()}” is not a time; try 1:30.`);
  const [hours = 0, minutes = 0] = [match[1], match[2]].map((n) => Number(n ?? 0));
  return ok(hours * 3600 + minutes * 60 + Number(match[3]?.replace(",", ".")));
}
