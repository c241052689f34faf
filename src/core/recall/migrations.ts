import type { Step } from "./steps";

/** A step as it was kept first: what it changes stood in a cell beside its kind, and could contradict it. */
interface FirstStep {
  readonly id: string;
  readonly cell: { readonly strip: string | null; readonly part: string; readonly layer?: string };
  readonly needs: unknown;
  readonly kind: string;
}

/** Parts that had a kind of step each. */
const WHOLE_PARTS: Readonly<Record<string, string>> = {
  setLevel: "level",
  setPan: "pan",
  setRouting: "routing",
  setLook: "look",
  setSource: "source",
};

function liftFirst({ cell, needs: _, kind, ...rest }: FirstStep): object {
  if (cell.strip === null) return { ...rest, kind };
  const part = WHOLE_PARTS[kind];
  if (part !== undefined) return { ...rest, kind: "setPart", strip: cell.strip, part };
  const layer = cell.layer === undefined ? {} : { layer: cell.layer };
  return { ...rest, ...layer, kind: kind === "setInserts" ? "setChain" : kind, strip: cell.strip };
}

const isFirst = (stored: unknown): stored is FirstStep =>
  typeof stored === "object" && stored !== null && "cell" in stored;

/** The tempo had a kind of step of its own. */
const liftTempo = (step: object): unknown =>
  "kind" in step && step.kind === "setTempo" ? { ...step, kind: "setDetail", detail: "tempo" } : step;

/** Steps as any Diathesis has kept them, as they are today. */
export const liftSteps = (stored: unknown): readonly Step[] =>
  (stored as readonly object[]).map((step) => liftTempo(isFirst(step) ? liftFirst(step) : step) as Step);
