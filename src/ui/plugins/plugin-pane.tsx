"use client";

import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { STRIP_KINDS, type StripKind } from "@/core/documents/strip-kinds";
import { FAMILY_NAMES, type Model } from "@/core/processors/model";
import { quoteValue } from "@/core/search/written";
import { MAKERS_START, withStartingPoint } from "@/core/settings/settings";

import { formatPlain } from "@/core/units/format";
import { Button } from "../kit/button";
import { SideHeading } from "../kit/bits";
import { formatCount } from "@/core/names/count";
import { quickKeyOf } from "../bench/chain/quick-models";
import { KeyCapture } from "../kit/key-capture";
import { orSay } from "../kit/say";
import { STRIP_WORDS } from "../kit/strip-words";
import { useShortcutOf } from "../plan/own-shortcuts";
import { useSettings } from "../settings/settings";
import { usePresetNames } from "./preset-names";

/** One model: what it opens with, its key, its sounds, its parameters. */
export function PluginPane({ model }: { readonly model: Model }) {
  const router = useRouter();
  const { keys, setKeys } = useShortcutOf({ model: model.id });
  const isEffect = model.family !== "instrument";
  return (
    <aside aria-label="Plugin" className="flex h-full flex-col bg-card">
      <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto px-[18px] pt-4 pb-3">
        <div>
          <p className="text-small text-soft">
            {FAMILY_NAMES[model.family]} · {model.maker}
          </p>
          <h2 className="h1 mt-0.5">{model.name}</h2>
        </div>
        <p className="text-soft">
          {model.hearable
            ? "Made of Diathesis’ own sound: what you set is what you hear."
            : "Kept, compared and recalled; listening passes it by."}
        </p>
        <StartingPoints model={model} />
        {isEffect && (
          <section>
            <SideHeading>Shortcut</SideHeading>
            <p className="flex items-center gap-3 pt-2">
              <span className="text-soft">Adds it to the chain on the bench</span>
              <KeyCapture label={model.name} keys={keys} standard={quickKeyOf(model.id)} onKeys={setKeys} />
            </p>
          </section>
        )}
        <section>
          <SideHeading>Parameters, {model.params.length}</SideHeading>
          <table className="mt-2 w-full">
            <tbody>
              {model.params.map((spec) => (
                <tr key={spec.id} className="border-rule border-b">
                  <th scope="row" className="h-[26px] text-left font-normal">
                    {spec.name}
                  </th>
                  <td className="num text-right text-soft">
                    {spec.choices
                      ? formatPlain(spec, spec.default)
                      : `${formatPlain(spec, spec.min)} … ${formatPlain(spec, spec.max)}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      </div>
      <div className="flex flex-none flex-wrap gap-2 border-rule border-t px-[18px] py-3">
        <Button
          main
          onClick={() => router.push(`/library?only=${encodeURIComponent(`has:${quoteValue(model.name)}`)}`)}
        >
          Show its sounds
        </Button>
        {!isEffect && <Button onClick={() => router.push(`/bench?new=${model.id}`)}>Play it on the bench</Button>}
      </div>
    </aside>
  );
}

/** Choices that are no preset. */
const MAKERS = "as the maker set it";
const OWN = "a setting of one's own";

/** As many as one looks through in a list of choices. */
const LISTED = 200;

/** What the model opens with: everywhere, and on each kind of strip. */
function StartingPoints({ model }: { readonly model: Model }) {
  const { settings, change } = useSettings();
  const presets = useQuery({
    queryKey: [...KEYS.presets, "of model", model.id],
    queryFn: () => api.listPresets({ model: model.id, sort: "name", limit: LISTED }),
  });
  const { items = [], total = 0 } = presets.data ?? {};
  const kinds: readonly (StripKind | null)[] = [null, ...STRIP_KINDS.filter((kind) => kind !== "folder")];
  const pointOf = (strip: StripKind | null) =>
    settings.startingPoints.find((s) => s.model === model.id && s.strip === strip);
  const nameOf = usePresetNames(kinds.flatMap((kind) => pointOf(kind)?.preset ?? []));
  const choose = (strip: StripKind | null, chosen: string) => {
    if (chosen === OWN) return;
    const start = chosen === "" ? null : chosen === MAKERS ? MAKERS_START : { preset: chosen, version: null };
    orSay(change((now) => withStartingPoint(now, { model: model.id, strip }, start)));
  };
  return (
    <section>
      <SideHeading>Opens with</SideHeading>
      <div className="grid grid-cols-[128px_1fr] items-center gap-x-3 gap-y-1 pt-2">
        {kinds.map((strip) => {
          const point = pointOf(strip);
          const beyond = point?.preset && !items.some((p) => p.id === point.preset) ? point.preset : null;
          const isOwn = point?.preset === null && point.values !== undefined;
          const label = strip === null ? "Everywhere" : `On ${STRIP_WORDS[strip]}`;
          return (
            <div key={strip ?? "all"} className="contents">
              <span className="text-soft">{label}</span>
              <select
                aria-label={`Opens with, ${label.toLowerCase()}`}
                value={point ? (point.preset ?? (isOwn ? OWN : MAKERS)) : ""}
                onChange={({ target }) => choose(strip, target.value)}
                className="h-[28px] min-w-0 rounded-card border border-bound bg-ground px-2"
              >
                <option value="">{strip === null ? "the maker’s start" : "as everywhere"}</option>
                {strip !== null && <option value={MAKERS}>the maker’s start</option>}
                {isOwn && <option value={OWN}>a setting of your own</option>}
                {beyond !== null && <option value={beyond}>{nameOf(beyond)}</option>}
                {items.map((preset) => (
                  <option key={preset.id} value={preset.id}>
                    {preset.card.name}
                  </option>
                ))}
              </select>
            </div>
          );
        })}
      </div>
      {total > items.length && (
        <p className="pt-2 text-small text-soft">
          The first {items.length} of {formatCount(total)} by name. Any other is set from the bench.
        </p>
      )}
      {presets.isSuccess && items.length === 0 && (
        <p className="pt-2 text-small text-soft">No preset of it yet. Save one from the bench to begin with it.</p>
      )}
    </section>
  );
}
