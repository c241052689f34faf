import { type Chain, nodeName } from "../../chains/chain";
import { findLane, findNode } from "../../chains/tree";
import { findStrip } from "../../projects/project";
import { fail, ok } from "../../result";
import { type Strip, chainAt } from "../../strips/strip";
import { type AnyStep, type Change, type StepKind, changeStrip, stepKind } from "./step-kind";

interface ChainStep extends AnyStep {
  readonly strip: string;
  readonly layer?: string | undefined;
}

interface ChainStepKind<S extends ChainStep> extends Partial<Pick<StepKind<S>, "complete" | "brings" | "isOneValue">> {
  readonly apply: (chain: Chain, step: S) => Change<Chain>;
  /** `chain`: as it is before; null where it is not here. */
  readonly words: (step: S, chain: Chain | null) => string;
}

function withChain(strip: Strip, { layer }: ChainStep, chain: Chain): Strip {
  const { source } = strip;
  if (layer === undefined || source.type !== "layers") return { ...strip, inserts: chain };
  const layers = source.layers.map((l) => (l.key === layer ? { ...l, effects: chain } : l));
  return { ...strip, source: { ...source, layers } };
}

/** A kind of step that changes something within a chain. */
export const chainStepKind = <S extends ChainStep>({ apply, words, ...others }: ChainStepKind<S>): StepKind<S> =>
  stepKind<S>({
    ...others,
    cell: ({ strip, layer }) => ({ strip, part: layer === undefined ? "inserts" : "source" }),
    apply: (project, step) =>
      changeStrip(project, step.strip, (strip) => {
        const chain = chainAt(strip, step.layer);
        if (!chain) return fail({ why: "missing", what: "layer", key: step.layer ?? "" });
        const changed = apply(chain, step);
        return changed.ok ? ok(withChain(strip, step, changed.value)) : changed;
      }),
    words: (step, project) => {
      const strip = findStrip(project, step.strip);
      return words(step, strip && chainAt(strip, step.layer));
    },
  });

/** What a step is about: a node, or a lane, of the chain that it is applied to. */
export function nameIn(chain: Chain | null, key: string): string {
  const node = chain ? findNode(chain, key)?.node : null;
  return node ? nodeName(node) : ((chain ? findLane(chain, key)?.name : null) ?? "the plugin");
}

/** An optional field is absent, never undefined. */
export function setOrDrop<T extends object, K extends keyof T>(record: T, field: K, value: T[K] | null): T {
  if (value !== null) return { ...record, [field]: value };
  const { [field]: _, ...rest } = record;
  return rest as T;
}
