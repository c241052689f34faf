import type { Browser } from "@playwright/test";
import { beClumsy } from "../../e2e/clumsy-hand";
import { createServer } from "../../e2e/server";
import type { Figure } from "./figure";

const ALL = 50_000;
/** Movements of one hand, on a library of its own. */
const EACH = 500;
const AT_ONCE = 2;
const FIRST_SEED = 1001;
const FIRST_PORT = 4960;

/** How many of the hands found something wrong; what they found is printed as they do. */
export async function clumsy(browser: Browser): Promise<Figure> {
  const seeds = Array.from({ length: ALL / EACH }, (_, n) => FIRST_SEED + n);
  let failed = 0;
  const work = async (port: number): Promise<void> => {
    for (let seed = seeds.shift(); seed !== undefined; seed = seeds.shift()) {
      const server = await createServer(port, true);
      try {
        await beClumsy(browser, server, { seed, actions: EACH });
      } catch (error) {
        failed++;
        console.error(error instanceof Error ? error.message : error);
      }
      await server.stop();
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, (_, n) => work(FIRST_PORT + n)));
  return { name: "clumsy", value: failed, op: "<=", goal: 0, unit: "hands that found a fault", runs: ALL / EACH };
}
