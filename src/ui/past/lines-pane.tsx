"use client";

import { useEffect } from "react";
import { partnersOf } from "@/core/chains/differences";
import { processorsOf } from "@/core/chains/tree";
import type { StripBeside } from "@/core/history/beside";
import { PART } from "@/core/strips/parts";
import type { Strip } from "@/core/strips/strip";
import { Button } from "../kit/button";
import { Scroll } from "../kit/scroll";
import { Segments } from "../kit/segments";
import { Shape } from "../kit/shape";
import { hear, hearBeside, setPlaying, setSide } from "../listening/listening";
import { useListening } from "../listening/state";
import { soundOfStrip } from "../listening/strip-sound";

interface Props {
  readonly strip: Strip;
  readonly beside: StripBeside | null;
  readonly tempo: number;
  /** What the two moments are called: "then", "now". */
  readonly names: { readonly then: string; readonly other: string };
}

/** A is the strip as it was, B as it is in what it is compared with, as long as both are there. */
function useHearing(then: Strip | null, other: Strip | null, { tempo, names }: Pick<Props, "tempo" | "names">): void {
  const [name, otherName] = [names.then, names.other];
  useEffect(() => {
    if (then && then.kind !== "folder") hear(soundOfStrip(then, tempo, `${then.look.name}, ${name}`));
  }, [then, tempo, name]);
  useEffect(() => {
    hearBeside(
      other && other.kind !== "folder" ? soundOfStrip(other, tempo, `${other.look.name}, ${otherName}`) : null,
    );
  }, [other, tempo, otherName]);
  useEffect(() => () => hearBeside(null), []);
}

/** One strip, value by value: as it was and as it is, its plugins drawn over each other, and both heard. */
export function LinesPane({ strip, beside, tempo, names }: Props) {
  const then = beside ? beside.left : strip;
  const other = beside ? beside.right : strip;
  useHearing(then ?? other, other, { tempo, names });
  const lines = beside?.cells.flatMap(({ part, lines: some }) => some.map((line) => ({ part, ...line }))) ?? [];
  const partners = then && other ? partnersOf(other.inserts, then.inserts) : new Map<string, never>();
  const drawn = processorsOf((then ?? other)?.inserts ?? { nodes: [], macros: [] });
  return (
    <section aria-label={strip.look.name} className="flex h-[236px] flex-none flex-col border-edge border-t">
      <header className="flex flex-none items-center gap-3 px-[14px] pt-3 pb-2">
        <h2 className="name truncate">{strip.look.name}</h2>
        <span className="truncate text-soft">
          {lines.length === 0 ? (beside ? "" : `the same ${names.then} and ${names.other}`) : ""}
        </span>
        <Hearing names={names} />
      </header>
      <div className="flex min-h-0 flex-1 gap-4 px-[14px] pb-3">
        <div className="flex w-[268px] flex-none flex-wrap content-start gap-[6px] overflow-auto">
          {drawn.map((processor) => (
            <Shape
              key={processor.key}
              processor={processor}
              before={partners.get(processor.key)}
              tempo={tempo}
              width={128}
              height={64}
            />
          ))}
          {drawn.length === 0 && <p className="text-soft">No plugins.</p>}
          {drawn.length > 0 && beside && (
            <p className="w-full text-small text-soft">
              Whole: {names.then}. Dashed: {names.other}.
            </p>
          )}
        </div>
        <Scroll label={`What differs of ${strip.look.name}`} className="min-w-0 flex-1">
          {lines.length > 0 && (
            <table className="w-full table-fixed">
              <thead>
                <tr className="text-left text-small text-soft">
                  <th className="w-1/2 font-normal">What</th>
                  <th className="font-normal">{names.then}</th>
                  <th className="font-normal">{names.other}</th>
                </tr>
              </thead>
              <tbody>
                {lines.map(({ part, what, from, to }) => (
                  <tr key={`${part} ${what} ${from} ${to}`} className="border-rule border-b">
                    <th scope="row" className="h-[26px] truncate pr-2 text-left font-normal" title={what}>
                      {what === PART[part].title ? what : `${PART[part].title}: ${what}`}
                    </th>
                    <td className="num truncate pr-2 text-soft" title={from}>
                      {from}
                    </td>
                    <td className="num truncate text-edit" title={to}>
                      {to}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </Scroll>
      </div>
    </section>
  );
}

function Hearing({ names }: Pick<Props, "names">) {
  const playing = useListening((l) => l.playing);
  const side = useListening((l) => l.side);
  return (
    <span className="ml-auto flex flex-none items-center gap-2">
      <Button small onClick={() => void setPlaying(!playing)}>
        {playing ? "Stop" : "Hear both"}
      </Button>
      <Segments
        label="Which one is heard"
        small
        value={side}
        onChange={setSide}
        options={[
          { value: "a", label: `A ${names.then}` },
          { value: "b", label: `B ${names.other}` },
        ]}
      />
    </span>
  );
}
