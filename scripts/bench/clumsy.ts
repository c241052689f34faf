import type { Browser } from "@playwright/test";
import { beClumsy } from "../../e2e/clumsy-hand";
import { createServer } from "../../e2e/server";
import type { Figure } from "./figure";

const ALL = 50_000;
/** Movements of one hand, on a library of its own. */
const EACH = 500;
const AT_ONCE = 2;
const FIRST_SEED = 1001;
const LAST_SEED = FIRST_SEED + ALL / EACH - 1;
const FIRST_PORT = 4960;

/** `CLUMSY_SEEDS=1026-1050`: some of them, for a go that is made in parts. */
function seedsAsked(): number[] {
  const [first = FIRST_SEED, last = first] = (process.env.CLUMSY_SEEDS ?? `${FIRST_SEED}-${LAST_SEED}`)
    .split("-")
    .map(Number);
  return Array.from({ length: last - first + 1 }, (_, n) => first + n);
}

/** How many of the hands found something wrong; each is told as it ends, with what it found. */
export async function clumsy(browser: Browser): Promise<Figure> {
  const seeds = seedsAsked();
  const runs = seeds.length;
  let failed = 0;
  const work = async (port: number): Promise<void> => {
    for (let seed = seeds.shift(); seed !== undefined; seed = seeds.shift()) {
      const server = await createServer(port, true);
      const began = Date.now();
      try {
        await beClumsy(browser, server, { seed, actions: EACH });
        console.error(`Seed ${seed}: no fault in ${Math.round((Date.now() - began) / 1000)} s`);
      } catch (error) {
        failed++;
        console.error(error instanceof Error ? error.message : error);
      }
      await server.stop();
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, (_, n) => work(FIRST_PORT + n)));
  return { name: "clumsy", value: failed, op: "<=", goal: 0, unit: "hands that found a fault", runs };
}
