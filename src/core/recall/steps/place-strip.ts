import equal from "fast-deep-equal";
import type { z } from "zod";
import { MOST_STRIPS } from "../../documents/limits";
import type { Project } from "../../projects/project";
import { fail, ok } from "../../result";
import { INSERTS } from "../../strips/parts/inserts";
import { type Strip, completeStrip, presetsIn } from "../../strips/strip";
import { type Change, stepKind, surroundingsOf } from "./step-kind";
import type { PlaceStripSchema } from "./schemas";

type PlaceStrip = Readonly<z.infer<typeof PlaceStripSchema>>;
type Placed = NonNullable<PlaceStrip["to"]>;

function take(strips: readonly Strip[], id: string, from: Placed): Change<readonly Strip[]> {
  const at = strips.findIndex((s) => s.id === id);
  if (!equal(strips[at], from.strip)) return fail({ why: "changed", what: `the strip “${from.strip.look.name}”` });
  if ((strips[at - 1]?.id ?? null) !== from.after) return fail({ why: "elsewhere", what: "strip" });
  return ok(strips.filter((s) => s.id !== id));
}

function put(strips: readonly Strip[], { strip, after }: Placed): Change<readonly Strip[]> {
  if (strips.length >= MOST_STRIPS) return fail({ why: "tooMany", what: "strips" });
  if (strips.some((s) => s.id === strip.id)) return fail({ why: "taken", what: "id", key: strip.id });
  const at = after === null ? -1 : strips.findIndex((s) => s.id === after);
  if (after !== null && at < 0) return fail({ why: "missing", what: "strip", key: after });
  return ok([...strips.slice(0, at + 1), strip, ...strips.slice(at + 1)]);
}

function apply(project: Project, { strip: id, from, to }: PlaceStrip): Change<Project> {
  const taken = from ? take(project.strips, id, from) : ok(project.strips as readonly Strip[]);
  if (!taken.ok) return taken;
  if (to && to.strip.id !== id) return fail({ why: "mismatch", key: id, brings: to.strip.id });
  const placed = to ? put(taken.value, to) : taken;
  return placed.ok ? ok({ ...project, strips: [...placed.value] }) : placed;
}

/** Puts a strip in (from nowhere), takes it out (to nowhere), or moves it. */
export const PLACE_STRIP = stepKind<PlaceStrip>({
  cell: ({ strip }) => ({ strip, part: null }),
  apply,
  words: ({ to }, project) =>
    to
      ? `new ${to.strip.kind} strip with ${INSERTS.words(to.strip.inserts, surroundingsOf(project, to.strip))}`
      : "strip taken out",
  brings: ({ to }) => (to ? presetsIn(to.strip) : []),
  complete: (given) => (given.to ? { ...given, to: { ...given.to, strip: completeStrip(given.to.strip) } } : given),
});
