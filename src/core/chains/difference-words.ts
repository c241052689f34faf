import type { PanLaw } from "../dsp/pan";
import { getSpec } from "../processors/model";
import { findModel } from "../processors/models";
import { formatLevel, formatPan, formatPlain } from "../units/format";
import { type Chain, nodeName, processorName } from "./chain";
import { findProcessor, nameApart, processorsOf, findLane, findNode } from "./tree";
import type { Difference } from "./differences";
import { LANE_LEVEL } from "./params";

/** A difference in words. */
export interface DifferenceWords {
  readonly what: string;
  readonly from: string;
  readonly to: string;
  readonly canPutBack: boolean;
}

function tellValue(difference: Extract<Difference, { kind: "value" }>, chain: Chain): DifferenceWords {
  const processor = findProcessor(chain, difference.processor);
  const model = processor ? findModel(processor.model) : null;
  if (!processor || !model) return { what: difference.param, from: "", to: "", canPutBack: false };
  const spec = getSpec(model, difference.param);
  const many = processorsOf(chain).filter((p) => p.model === processor.model).length > 1;
  const where =
    processor.label !== undefined || many || spec.group === undefined ? `${nameApart(chain, processor.key)}: ` : "";
  const [from, to] = [formatPlain(spec, difference.from), formatPlain(spec, difference.to)];
  return { what: `${where}${spec.name}`, from, to, canPutBack: true };
}

function tellLane(difference: Extract<Difference, { kind: "lane" }>, chain: Chain): DifferenceWords {
  const { setting } = difference;
  const write = (value: number | boolean | PanLaw): string => {
    if (typeof value === "boolean") return value ? "on" : "off";
    if (typeof value === "string") return value;
    return setting === "pan" ? formatPan(value) : `${formatLevel(value, LANE_LEVEL.min)} dB`;
  };
  const words = { enabled: "", level: " level", pan: " pan", panLaw: " pan or balance" }[setting];
  return {
    what: `Lane ${findLane(chain, difference.lane)?.name ?? ""}${words}`,
    from: write(difference.from),
    to: write(difference.to),
    canPutBack: true,
  };
}

/** What differs, as it was and as it is in `chain`. */
export function differenceWords(difference: Difference, chain: Chain): DifferenceWords {
  switch (difference.kind) {
    case "added":
      return { what: nameApart(chain, difference.processor.key), from: "not there", to: "added", canPutBack: true };
    case "removed":
      return { what: processorName(difference.processor), from: "there", to: "taken out", canPutBack: true };
    case "order":
      return { what: "Order and wiring", from: "as saved", to: "changed", canPutBack: false };
    case "macros":
      return { what: "Macros", from: "as saved", to: "changed", canPutBack: true };
    case "section": {
      const section = findNode(chain, difference.section)?.node;
      const word = (on: boolean) => (on ? "on" : "off");
      return {
        what: section ? nodeName(section) : "",
        from: word(difference.from),
        to: word(difference.to),
        canPutBack: true,
      };
    }
    case "lane":
      return tellLane(difference, chain);
    case "enabled": {
      const processor = findProcessor(chain, difference.processor);
      const word = (on: boolean) => (on ? "on" : "off");
      const what = processor ? nameApart(chain, processor.key) : "";
      return { what, from: word(difference.from), to: word(difference.to), canPutBack: true };
    }
    case "value":
      return tellValue(difference, chain);
  }
}
