import equal from "fast-deep-equal";
import { findStrip, freeStripName } from "../projects/project";
import { type SavedStrip, stripName } from "../strips/strip";
import { PART, type PartName } from "../strips/parts";
import { inFolder } from "../strips/parts/look";
import type { Part } from "../strips/parts/part";
import { type PartContext, aimed, ask, take } from "./plan-aims";
import { cellKey } from "./plan-flow";
import { planInsertsPart } from "./plan-insert-part";
import { planLayers } from "./plan-layers";
import { askedFor, isOn } from "./plan-places";
import { planSendsPart, singleSends } from "./plan-send-part";
import type { PlanRow } from "./plan-shape";
import type { Step } from "./steps";
import type { SetPart, WholePart } from "./steps/set-part";

/* What becomes of each part of one strip. */

/** Every part that is asked for. What is switched off asks nothing and says nothing. `look`: that was planned already. */
export function planParts(context: PartContext, look: readonly Step[]): PlanRow["parts"] {
  const { draft, input, request, key, saved } = context;
  return askedFor(saved, request).map((part) => {
    const on = isOn(input.except, key, part);
    const planned = () => take(draft, planPart(context, part));
    const steps = !on ? [] : part === "look" ? look : planned();
    return { part, on, steps: steps.map((s) => s.id), ...(part === "sends" ? { sends: singleSends(context) } : {}) };
  });
}

export function planPart(context: PartContext, part: PartName): readonly Step[] {
  const { draft, strip } = context;
  const misfit = PART[part].misfit(strip.kind);
  if (misfit !== null) {
    const note = { strip: strip.id, text: `${stripName(strip)} ${misfit}.` };
    // Of a folder each part says the same.
    if (misfit !== "" && !draft.notes.some((other) => equal(other, note))) draft.notes.push(note);
    return [];
  }
  if (part === "inserts") return planInsertsPart(context);
  if (part === "look") return planLook(context);
  if (part === "sends") return planSendsPart(context);
  return planWhole(context, part, part === "source" ? layersTaken(context) : context.saved[part]);
}

/** What of a saved instrument is taken. */
function layersTaken({ draft, request, strip, saved }: PartContext): SavedStrip["source"] {
  if (!saved.source) return undefined;
  const planned = planLayers({ now: strip.source, wanted: saved.source, take: request.layers ?? "whole" });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return planned.source;
}

/** Whether two strips are to have one name is asked first. */
function planLook(context: PartContext): readonly Step[] {
  const { draft, input, strip, saved } = context;
  if (!saved.look) return [];
  // A folder that is here stays where it stands.
  const isOwnFolder = strip.kind === "folder" && findStrip(input.project, strip.id) !== null;
  const look = isOwnFolder ? inFolder(saved.look, strip.look.folder ?? null) : saved.look;
  const free = freeStripName(draft.project, look.name, strip.id);
  if (free === look.name) return planWhole(context, "look", look);
  const id = `look:${strip.id}`;
  const own = stripName(strip);
  const names: Readonly<Record<string, string>> = { keep: own, number: free, same: look.name };
  const choices = [
    { id: "keep", text: `Leave its name: ${own}` },
    { id: "number", text: `Call it ${free}` },
    { id: "same", text: `Call both ${look.name}` },
  ];
  const text = `Another strip is called ${look.name} already. What is ${own} to be called?`;
  const name = names[ask(draft, input, { id, strip: strip.id, text, choices, answer: "keep" })] ?? own;
  return planWhole(context, "look", { ...look, name });
}

/** A part as a whole, its references found here. Where a question is answered by leaving things as they are, it stays. */
function planWhole(context: PartContext, part: WholePart, wanted: unknown): readonly Step[] {
  const { draft, input, request, strip } = context;
  const to = aimed(context, part, PART[part] as Part<unknown>, wanted);
  if (to === null) return [];
  if (part !== "source" || (request.layers ?? "whole") === "whole")
    draft.replaced.set(cellKey(strip.id, part), new Set());
  if (equal(strip[part], to.value)) return [];
  return [{ id: input.mint(), kind: "setPart", strip: strip.id, part, from: strip[part], to: to.value } as SetPart];
}
