import type { z } from "zod";
import { type Surroundings, part } from "./part";
import type { OutputSchema, RoutingSchema } from "./schemas";

export type Output = Readonly<z.infer<typeof OutputSchema>>;
export type Routing = Readonly<z.infer<typeof RoutingSchema>>;

/** "Main", "Out 1–2", "nowhere". */
function words({ output }: Routing, { nameOf }: Pick<Surroundings, "nameOf">): string {
  if (!output) return "nowhere";
  if ("hardware" in output) return output.hardware;
  if ("external" in output) return output.name;
  return nameOf(output.strip) ?? "nowhere";
}

export const ROUTING = part<Routing>({
  title: "Output",
  phrase: "the output",
  empty: () => ({ output: null }),
  words,
  change: (from, to, around) => `output ${words(from, around)} → ${words(to, around)}`,
  aims: {
    way: "out",
    leads: "goes to",
    at: () => ".output",
    of: ({ output }) => (output && !("hardware" in output) ? [output] : []),
    mapped: (routing, aim) =>
      routing.output && !("hardware" in routing.output) ? { output: aim(routing.output) } : routing,
    takes: (kind) => kind === "group" || kind === "main",
    whenNone: "stays",
    question: {
      of: "each",
      text: (missing, strip) => `“${missing}” is missing here. ${strip} would go to it.`,
      leave: "Leave the output as it is",
      makes: () => false,
    },
  },
  // The main output goes nowhere but out.
  misfit: (kind) => (kind === "main" ? "" : null),
});
