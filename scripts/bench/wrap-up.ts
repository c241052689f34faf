import { insertProject } from "@/server/repositories/projects";
import { inTransaction } from "@/server/store/transaction";
import { lookThrough } from "@/server/use-cases/wrap-up/look";
import { timed, withLibrary } from "./archive";
import { type Figure, median } from "./figure";
import { MANY } from "./library";
import { projectOf } from "./projects";

const STRIPS = 60;
const RUNS = 7;

/** A project of 60 strips looked through against 100,000 sounds, in milliseconds, once where they stand is known. */
export const wrapUps = (): Promise<Figure> =>
  withLibrary(MANY, async (context) => {
    const project = projectOf("large", STRIPS);
    await inTransaction(context, (tx) => insertProject(tx, { project, at: context.now().toISOString() }));
    const look = async () => {
      const looked = await lookThrough(context, project.id);
      if (!looked.ok || looked.value.finds.length < STRIPS) throw new Error("It was not looked through.");
    };
    console.error(`${Math.round(await timed(look))} ms, the first time`);
    const times: number[] = [];
    for (let run = 0; run < RUNS; run++) times.push(await timed(look));
    return { name: "wrap-up", value: median(times), op: "<=", goal: 300, unit: "ms", runs: RUNS };
  });
