"use client";

import type { Chain, PresetRef } from "@/core/chains/chain";
import type { Difference } from "@/core/chains/differences";
import { differenceWords } from "@/core/chains/difference-words";
import { Button } from "../kit/button";
import { SideHeading } from "../kit/bits";

interface Props {
  readonly chain: Chain;
  readonly reference: PresetRef | null;
  readonly differences: readonly Difference[];
  readonly onPutBack: (difference: Difference) => void;
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
          const { what, from, to, canPutBack } = differenceWords(difference, chain);
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
