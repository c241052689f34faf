import equal from "fast-deep-equal";
import type { z } from "zod";
import { type Chain, processorName } from "../../chains/chain";
import { findProcessor, mapProcessor } from "../../chains/tree";
import { findSpec } from "../../processors/model";
import { findModel } from "../../processors/models";
import { fail, ok } from "../../result";
import { formatPlain } from "../../units/format";
import { chainStepKind } from "./chain-step";
import type { SetValueSchema } from "./schemas";

type SetValue = Readonly<z.infer<typeof SetValueSchema>>;

function words({ node, param, from, to }: SetValue, chain: Chain | null): string {
  const processor = chain ? findProcessor(chain, node) : null;
  const model = processor ? findModel(processor.model) : null;
  const spec = model ? findSpec(model, param) : null;
  if (!processor || !spec) return `${param} changes`;
  return `${processorName(processor)}, ${spec.name} ${formatPlain(spec, from)} → ${formatPlain(spec, to)}`;
}

/** One value of a plugin. */
export const SET_VALUE = chainStepKind<SetValue>({
  apply: (chain, { node, param, from, to }) => {
    const processor = findProcessor(chain, node);
    if (!processor) return fail({ why: "missing", what: "plugin", key: node });
    if (!equal(processor.values[param], from)) return fail({ why: "changed", what: "the value" });
    return ok(mapProcessor(chain, node, (p) => ({ ...p, values: { ...p.values, [param]: to } })));
  },
  words,
  isOneValue: () => true,
});
