"use client";

import type { Chain, From } from "@/core/chains/chain";
import { findProcessor, nodeName, processorName, processorsOf } from "@/core/chains/chain";
import type { Difference } from "@/core/chains/differences";
import { LANE_LEVEL } from "@/core/chains/params";
import { findLane, findNode } from "@/core/chains/tree";
import { getSpec } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import { formatLevel, formatPan, formatPlain } from "@/core/units/format";
import { Button } from "../kit/button";
import { SideHeading } from "../kit/bits";

interface Props {
  readonly chain: Chain;
  readonly reference: From | null;
  readonly differences: readonly Difference[];
  readonly onPutBack: (difference: Difference) => void;
}

interface Told {
  readonly what: string;
  readonly from: string;
  readonly to: string;
  readonly canPutBack: boolean;
}

function tellValue(difference: Extract<Difference, { kind: "value" }>, chain: Chain): Told {
  const processor = findProcessor(chain, difference.processor);
  const model = processor ? findModel(processor.model) : null;
  if (!processor || !model) return { what: difference.param, from: "", to: "", canPutBack: false };
  const spec = getSpec(model, difference.param);
  const many = processorsOf(chain).filter((p) => p.model === processor.model).length > 1;
  const where =
    processor.label !== undefined || many || spec.group === undefined ? `${processorName(processor)}: ` : "";
  const [from, to] = [formatPlain(spec, difference.from), formatPlain(spec, difference.to)];
  return { what: `${where}${spec.name}`, from, to, canPutBack: true };
}

function tellLane(difference: Extract<Difference, { kind: "lane" }>, chain: Chain): Told {
  const { setting } = difference;
  const write = (value: number | boolean): string => {
    if (typeof value === "boolean") return value ? "on" : "off";
    return setting === "pan" ? formatPan(value) : `${formatLevel(value, LANE_LEVEL.min)} dB`;
  };
  const words = { enabled: "", level: " level", pan: " pan" }[setting];
  return {
    what: `Lane ${findLane(chain, difference.lane)?.name ?? ""}${words}`,
    from: write(difference.from),
    to: write(difference.to),
    canPutBack: true,
  };
}

function tell(difference: Difference, chain: Chain): Told {
  switch (difference.kind) {
    case "added":
      return { what: processorName(difference.processor), from: "not there", to: "added", canPutBack: true };
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
      const what = processor ? processorName(processor) : "";
      return { what, from: word(difference.from), to: word(difference.to), canPutBack: true };
    }
    case "value":
      return tellValue(difference, chain);
  }
}

/** Value by value, what is not as it was saved; each can be put back alone. */
export function DifferencesPane({ chain, reference, differences, onPutBack }: Props) {
  if (!reference && differences.length === 0)
    return (
      <>
        <SideHeading>Not saved yet</SideHeading>
        <p className="text-small text-soft">
          Once it is saved, this side shows what has changed since, value by value.
        </p>
      </>
    );
  return (
    <>
      {reference && (
        <SideHeading>
          {differences.length === 0 ? "As saved in" : "Differs from"} version {reference.version}
        </SideHeading>
      )}
      {!reference && <SideHeading>Differs from the plugins’ presets</SideHeading>}
      {reference && differences.length === 0 && (
        <p className="text-small text-soft">Every value is as in “{reference.name}”.</p>
      )}
      <ul className="grid gap-[14px]">
        {differences.map((difference) => {
          const { what, from, to, canPutBack } = tell(difference, chain);
          return (
            <li key={`${what} ${from}`} className="grid grid-cols-[1fr_auto] items-start gap-x-2">
              <span>{what}</span>
              {canPutBack && (
                <Button
                  small
                  plain
                  className="-mr-2"
                  aria-label={`Put back ${what}`}
                  onClick={() => onPutBack(difference)}
                >
                  put back
                </Button>
              )}
              <span className="num col-span-2">
                <span className="text-soft">{from}</span> → <span className="text-edit">{to}</span>
              </span>
            </li>
          );
        })}
      </ul>
    </>
  );
}
