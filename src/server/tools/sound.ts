import { readFileSync, writeFileSync } from "node:fs";
import { resolve } from "node:path";
import { z } from "zod";
import type { Chain } from "@/core/chains/chain";
import { completeChain } from "@/core/chains/complete";
import { findChainProblem } from "@/core/chains/problems";
import { hearChain } from "@/core/chains/hear";
import { ChainSchema } from "@/core/chains/schema";
import { parseWith } from "@/core/documents/problem";
import { measure } from "@/core/dsp/measure/measure";
import { renderInTime } from "@/core/sound/render";
import type { StereoSound } from "@/core/dsp/stereo-sound";
import { readWav, writeWav } from "@/core/formats/wav/wav";
import { chainOf } from "@/core/presets/preset";
import { completeContent, findContentProblem } from "@/core/presets/whole";
import { ContentSchema } from "@/core/presets/schema";
import { beatsPerMinute } from "@/core/units/quantities";

/** render FILE IN.wav OUT.wav [--tempo BPM]  |  measure IN.wav */

class Unusable extends Error {}

const TEMPO = 120;

function readSound(path: string): StereoSound {
  const sound = readWav(readFileSync(path));
  if (!sound.ok) throw new Unusable(`${path}: ${sound.error}`);
  return sound.value;
}

/** A preset's content, or a chain by itself. */
function readChain(path: string): Chain {
  let data: unknown;
  try {
    data = JSON.parse(readFileSync(path, "utf8"));
  } catch {
    throw new Unusable(`${path}: not whole JSON.`);
  }
  const isContent = z.looseObject({ kind: z.string() }).safeParse(data).success;
  const parsed = isContent ? parseWith(ContentSchema, data) : parseWith(ChainSchema, data);
  if (!parsed.ok) throw new Unusable(`${path}: ${parsed.error.path}: ${parsed.error.message}`);
  const document = parsed.value;
  const problem = "kind" in document ? findContentProblem(document) : findChainProblem(document, "chain");
  if (problem) throw new Unusable(`${path}: ${problem.path}: ${problem.message}`);
  return "kind" in document ? chainOf(completeContent(document)) : completeChain(document);
}

/** JSON knows no infinity: silence is null. */
const print = (sound: StereoSound): void => console.log(JSON.stringify(measure(sound)));

function main([folder = ".", command, ...args]: readonly string[]): void {
  const [first = "", second = "", third = ""] = args.map((path) => resolve(folder, path));
  if (command === "measure" && args.length === 1) return print(readSound(first));
  if (command === "render" && args.length >= 3) {
    const at = args.indexOf("--tempo");
    const tempo = at < 0 ? TEMPO : Number(args[at + 1]);
    if (!(tempo >= 20 && tempo <= 400)) throw new Unusable("--tempo goes from 20 to 400.");
    const sound = renderInTime(hearChain(readChain(first), beatsPerMinute(tempo)), readSound(second));
    writeFileSync(third, writeWav(sound));
    return print(sound);
  }
  throw new Unusable("render FILE IN.wav OUT.wav [--tempo BPM]  |  measure IN.wav");
}

try {
  main(process.argv.slice(2));
} catch (error) {
  const known = error instanceof Unusable || (error as NodeJS.ErrnoException).code === "ENOENT";
  console.error(known ? (error as Error).message : error);
  process.exitCode = 1;
}
