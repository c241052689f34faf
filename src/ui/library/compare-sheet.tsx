"use client";

import { counted } from "@/core/names/count";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { describeDifferences } from "@/core/chains/differences";
import { linesOf } from "@/core/presets/beside-words";
import { contentMeant } from "@/core/presets/meant";
import { type Content, chainOf } from "@/core/presets/preset";
import { type Beside, compareContents } from "@/core/presets/versions-of-sets";
import { processorsOf } from "@/core/chains/tree";
import { Button } from "../kit/button";
import { Loading } from "../kit/bits";
import { formatMoment } from "../kit/dates";
import { Scroll } from "../kit/scroll";
import { Segments } from "../kit/segments";
import { Shapes } from "../kit/shape";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { hearPreset } from "../listening/hear-preset";
import { hear, hearBeside, setPlaying, setSide } from "../listening/listening";
import { useListening } from "../listening/state";
import { type Compared, closeSheet, useFiling } from "./filing";
import { writeAddress } from "./in-address";
import { writeComparison } from "./open-comparison";
import { useTempo } from "./use-tempo";

interface Props {
  readonly left: Compared;
  readonly right: Compared;
}

function useVersions(preset: string) {
  const detail = useQuery({ queryKey: [...KEYS.preset(preset), "detail"], queryFn: () => api.getPreset(preset) });
  return detail.data?.versions ?? [];
}

function useContent({ preset, version, strip }: Compared): Content | null {
  const earlier = useQuery({
    queryKey: KEYS.version(preset.id, version),
    queryFn: () => api.getPreset(preset.id, version),
    enabled: version !== preset.version,
  });
  const content = version === preset.version ? preset.content : earlier.data?.preset.content;
  return content ? contentMeant(content, { strip }) : null;
}

function howMuch(besides: readonly Beside[]): string {
  const differences = besides.flatMap((beside) => beside.differences);
  const parts = besides.flatMap((beside) => beside.parts);
  const strips = besides.filter(({ missing }) => missing !== null);
  const words = [
    differences.length > 0 ? describeDifferences(differences) : "",
    parts.length > 0 ? `${counted(parts.length, "part")} of the ${besides.length > 1 ? "strips" : "strip"}` : "",
    strips.length > 0 ? counted(strips.length, "strip") : "",
  ].filter((some) => some !== "");
  return words.length === 0 ? "no value differs" : `differs by ${words.join(" and ")}`;
}

/** Two versions of a sound, or two sounds, value by value and by ear; an earlier version can be made the newest again. */
export function CompareSheet(given: Props) {
  const queries = useQueryClient();
  const tempo = useTempo();
  const { done } = useFiling();
  const [versions, setVersions] = useState({ left: given.left.version, right: given.right.version });
  const { refusal, attempt } = useAttempt();
  const left = { ...given.left, version: versions.left };
  const right = { ...given.right, version: versions.right };
  useEffect(() => writeComparison(left, right));
  useEffect(() => () => writeAddress({ compare: null }), []);
  const [a, b] = [useContent(left), useContent(right)];
  const isOne = left.preset.id === right.preset.id;
  const besides = a && b ? compareContents(a, b) : [];
  const lines = besides.flatMap(linesOf);
  useHearing(left, right, { a, b, tempo });
  const restore = () =>
    attempt(async () => {
      await api.makeNewest(left.preset.id, left.version);
      await queries.invalidateQueries({ queryKey: KEYS.preset(left.preset.id) });
      closeSheet();
      await done(`Version ${left.version} of “${left.preset.card.name}” is the newest again`);
    });
  return (
    <Sheet
      open
      onClose={closeSheet}
      title={isOne ? left.preset.card.name : "Two sounds beside each other"}
      aside={a && b ? howMuch(besides) : ""}
      className="w-[820px]"
    >
      <div className="grid grid-cols-2 gap-4">
        {(["left", "right"] as const).map((side) => (
          <Side
            key={side}
            side={side}
            compared={side === "left" ? left : right}
            content={side === "left" ? a : b}
            tempo={tempo}
            onVersion={(version) => setVersions({ ...versions, [side]: version })}
          />
        ))}
      </div>
      {!(a && b) && <Loading what="Fetching both" />}
      <Scroll label="What differs" className="max-h-[300px] min-h-[80px] border-edge border-t">
        {a && b && lines.length === 0 && <p className="py-3 text-soft">Both are set the same.</p>}
        <table className="w-full">
          <tbody>
            {lines.map(({ what, from, to }) => (
              <tr key={`${what} ${from} ${to}`} className="border-rule border-b">
                <th scope="row" className="h-[30px] pr-3 text-left font-normal">
                  {what}
                </th>
                <td className="num w-[180px] text-soft">{from}</td>
                <td className="num w-[180px] text-edit">{to}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      {refusal}
      <div className="flex items-center gap-2">
        <Hearing />
        <span className="ml-auto flex gap-2">
          {isOne && left.version !== left.preset.version && (
            <Button disabled={!a} onClick={() => void restore()}>
              Make version {left.version} the newest
            </Button>
          )}
          <Button main onClick={closeSheet}>
            Close
          </Button>
        </span>
      </div>
    </Sheet>
  );
}

interface SideProps {
  readonly side: "left" | "right";
  readonly compared: Compared;
  readonly content: Content | null;
  readonly tempo: number;
  readonly onVersion: (version: number) => void;
}

function Side({ side, compared: { preset, version }, content, tempo, onVersion }: SideProps) {
  const versions = useVersions(preset.id);
  const letter = side === "left" ? "A" : "B";
  return (
    <section aria-label={letter} className="grid content-start gap-2">
      <h3 className="flex items-baseline gap-2">
        <span className="key">{letter}</span>
        <span className="name truncate">{preset.card.name}</span>
      </h3>
      <select
        aria-label={`Version of ${letter}`}
        value={version}
        onChange={(event) => onVersion(Number(event.target.value))}
        className="h-[30px] rounded-card border border-bound bg-ground px-[10px]"
      >
        {(versions.length > 0 ? versions : [{ version, savedAt: preset.savedAt, name: null }]).map((v) => (
          <option key={v.version} value={v.version}>
            version {v.version}
            {v.name === null ? "" : `, ${v.name}`} · {formatMoment(v.savedAt)}
          </option>
        ))}
      </select>
      {content && <Shapes processors={processorsOf(chainOf(content))} tempo={tempo} width={56} most={6} />}
    </section>
  );
}

/** A is the left, B the right, as long as the sheet is open. */
function useHearing(
  left: Compared,
  right: Compared,
  { a, b, tempo }: { a: Content | null; b: Content | null; tempo: number },
): void {
  const [leftName, rightName] = [left, right].map((c) => `${c.preset.card.name}, version ${c.version}`);
  useEffect(() => {
    if (a) return hearPreset(hear, a, { name: leftName ?? "", tempo });
  }, [a, leftName, tempo]);
  useEffect(() => {
    if (b) return hearPreset(hearBeside, b, { name: rightName ?? "", tempo });
  }, [b, rightName, tempo]);
  useEffect(() => () => hearBeside(null), []);
}

function Hearing() {
  const playing = useListening((l) => l.playing);
  const side = useListening((l) => l.side);
  return (
    <>
      <Button onClick={() => void setPlaying(!playing)}>{playing ? "Stop" : "Hear them"}</Button>
      <Segments
        label="Which one is heard"
        value={side}
        onChange={setSide}
        options={[
          { value: "a", label: "A" },
          { value: "b", label: "B" },
        ]}
      />
    </>
  );
}
