import { beClumsy } from "./clumsy-hand";
import { test } from "./server";

/** Together 2,000 movements; `npm run bench -- --only clumsy` makes 50,000. */
test.describe.configure({ mode: "parallel" });

const SEEDS = (process.env.CLUMSY_SEEDS ?? "1,2,3,4,5,6,7,8").split(",").map(Number);
const MOVEMENTS = Number(process.env.CLUMSY_ACTIONS ?? 250);

for (const seed of SEEDS)
  test(`a clumsy hand breaks nothing, and all it did can be undone: seed ${seed}`, async ({ browser, server }) => {
    test.setTimeout(120_000 + 2000 * MOVEMENTS);
    await beClumsy(browser, server, { seed, actions: MOVEMENTS });
  });
