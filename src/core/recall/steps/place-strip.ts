import type { z } from "zod";
import { MOST_STRIPS } from "../../documents/limits";
import type { Project } from "../../projects/project";
import { ok } from "../../result";
import { INSERTS } from "../../strips/parts/inserts";
import { type Strip, completeStrip, presetsIn, stripName } from "../../strips/strip";
import { type ListOf, type Placed, placeIn } from "./list";
import { type Change, stepKind, surroundingsOf } from "./step-kind";
import type { PlaceStripSchema } from "./schemas";

type PlaceStrip = Readonly<z.infer<typeof PlaceStripSchema>>;
type To = PlaceStrip["to"];

const STRIPS: ListOf<Strip> = {
  what: "strip",
  by: "id",
  most: MOST_STRIPS,
  idOf: ({ id }) => id,
  nameOf: (strip) => `the strip “${stripName(strip)}”`,
};

const placed = (to: To): Placed<Strip> | null => to && { item: to.strip, after: to.after };

function apply(project: Project, { strip: id, from, to }: PlaceStrip): Change<Project> {
  const strips = placeIn(STRIPS, project.strips, { id, from: placed(from), to: placed(to) });
  return strips.ok ? ok({ ...project, strips: [...strips.value] }) : strips;
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
