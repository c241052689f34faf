"use client";

import { ArrowLeft, ArrowRight, Trash2 } from "lucide-react";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { type Processor, processorName, processorsOf } from "@/core/chains/chain";
import { type Difference, describeDifferences } from "@/core/chains/differences";
import { defaultValues } from "@/core/processors/model";
import { type Family, type Model } from "@/core/processors/model";
import { MODELS, findModel, getModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import { useActions } from "../actions/actions";
import { Empty, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Panels } from "../kit/panels";
import { Toggle } from "../kit/toggle";
import { HistoryButtons, historyActions } from "../projects/history";
import { mintKey } from "../projects/mint";
import { openSave } from "../save/save";
import { useSaveAgain } from "../save/save-again";
import { DifferencesPane } from "./differences-pane";
import type { EditorProps } from "./editors/editor";
import { Tiles } from "./tiles";
import { type Bench as BenchState, useBench } from "./use-bench";

const loading = () => <Loading what="Opening the editor" />;
const EqEditor = dynamic(() => import("./editors/eq-editor").then((m) => m.EqEditor), { loading });
const CompressorEditor = dynamic(() => import("./editors/compressor-editor").then((m) => m.CompressorEditor), {
  loading,
});
const DelayEditor = dynamic(() => import("./editors/delay-editor").then((m) => m.DelayEditor), { loading });

/** Each family's own plot as its editor; the code comes when one is opened. */
const EDITORS: Record<Family, React.ComponentType<EditorProps>> = {
  equaliser: EqEditor,
  dynamics: CompressorEditor,
  delay: DelayEditor,
};

export function Bench() {
  const bench = useBench();
  const { place, strip, editing } = bench;
  if (place.nothing) return <NothingYet />;
  const error = place.error ?? editing.error?.message;
  if (error)
    return (
      <Empty page title="This cannot be opened">
        <p role="alert">{error}</p>
        <BackToLibrary />
      </Empty>
    );
  if (!editing.body) return <Loading what="Opening the bench" />;
  if (!strip)
    return (
      <Empty page title="This strip is not there any more">
        <p>It was taken out of {editing.body.project.name}. Undo brings it back.</p>
        <BackToLibrary />
      </Empty>
    );
  return <OpenBench bench={bench} />;
}

function BackToLibrary() {
  const router = useRouter();
  return <Button onClick={() => router.push("/library")}>To the library</Button>;
}

function NothingYet() {
  const router = useRouter();
  return (
    <Empty page title="Nothing is on the bench">
      <p>Open a sound of the library, or a strip of a project, or start with nothing.</p>
      <div className="flex gap-2">
        <Button main onClick={() => router.push("/bench?new=1")}>
          Start a new sound
        </Button>
        <BackToLibrary />
        <Button onClick={() => router.push("/projects")}>Projects</Button>
      </div>
    </Empty>
  );
}

/** What can be done on the bench, by hand or by key. */
function useBenchGestures(bench: BenchState) {
  const { gesture, selected, chain, saved } = bench;
  const processors = processorsOf(chain);
  const add = (modelId: string) => {
    const model = getModel(modelId);
    const key = mintKey();
    const node: Processor = {
      type: "processor",
      key,
      model: model.id,
      enabled: true,
      values: { ...defaultValues(model) },
    };
    void gesture(`Add ${model.name}`, (hand) =>
      gestures.putIn(hand, node, selected?.key ?? processors.at(-1)?.key ?? null),
    );
    bench.select(key);
  };
  const onSelected = (
    label: string,
    make: (hand: gestures.Hand, key: string) => ReturnType<typeof gestures.takeOut>,
  ) => {
    if (selected) void gesture(`${label} ${processorName(selected)}`, (hand) => make(hand, selected.key));
  };
  const putBack = (difference: Difference) => {
    void gesture("Put back", (hand) => {
      switch (difference.kind) {
        case "value":
          return gestures.turn(hand, difference.processor, { [difference.param]: difference.from });
        case "enabled":
          return gestures.switchOn(hand, difference.processor, difference.from);
        case "added":
          return gestures.takeOut(hand, difference.processor.key);
        case "removed":
          return gestures.putIn(
            hand,
            difference.processor,
            placeOf(saved?.chain ?? chain, difference.processor.key, processors),
          );
        case "order":
          return [];
      }
    });
  };
  return {
    add,
    putBack,
    takeOut: () => onSelected("Take out", gestures.takeOut),
    moveBy: (by: 1 | -1) => onSelected("Move", (hand, key) => gestures.move(hand, key, by)),
    toggle: () =>
      selected &&
      onSelected(selected.enabled ? "Switch off" : "Switch on", (hand, key) =>
        gestures.switchOn(hand, key, !selected.enabled),
      ),
    backToSaved: () => saved && void gesture("Back to saved", (hand) => gestures.replaceInserts(hand, saved.chain)),
    step: (by: 1 | -1) => {
      const at = processors.findIndex((p) => p.key === selected?.key);
      const next = processors[at + by];
      if (next) bench.select(next.key);
    },
  };
}

/** Behind the nearest of those before it in the saved chain that is still there. */
function placeOf(saved: BenchState["chain"], key: string, now: readonly Processor[]): string | null {
  const keys = processorsOf(saved).map((p) => p.key);
  const before = keys.slice(0, keys.indexOf(key)).toReversed();
  return before.find((k) => now.some((p) => p.key === k)) ?? null;
}

function useBenchActions(bench: BenchState, hand: ReturnType<typeof useBenchGestures>, saveAgain: () => void) {
  const { selected, editing, differences, strip, place } = bench;
  const group = "Bench";
  const has = selected !== null;
  const canSave = Boolean(strip && strip.inserts.nodes.length > 0);
  useActions([
    ...historyActions(editing, group),
    {
      id: "save-again",
      title: bench.reference ? "Save new version" : "Save…",
      group,
      keys: ["Ctrl+S"],
      enabled: canSave,
      run: saveAgain,
    },
    {
      id: "save-as",
      title: "Save as…",
      group,
      keys: ["Ctrl+Shift+S"],
      enabled: canSave,
      run: () => place.project && strip && openSave({ project: place.project, strip: strip.id }),
    },
    { id: "next-plugin", title: "Next plugin", group, keys: ["ArrowRight"], keyOnly: true, run: () => hand.step(1) },
    {
      id: "previous-plugin",
      title: "Previous plugin",
      group,
      keys: ["ArrowLeft"],
      keyOnly: true,
      run: () => hand.step(-1),
    },
    {
      id: "on-off",
      title: selected?.enabled ? "Switch this plugin off" : "Switch this plugin on",
      group,
      keys: ["O"],
      enabled: has,
      run: hand.toggle,
    },
    { id: "take-out", title: "Take this plugin out", group, keys: ["Delete"], enabled: has, run: hand.takeOut },
    {
      id: "move-left",
      title: "Move this plugin earlier",
      group,
      keys: ["Alt+ArrowLeft"],
      enabled: has,
      run: () => hand.moveBy(-1),
    },
    {
      id: "move-right",
      title: "Move this plugin later",
      group,
      keys: ["Alt+ArrowRight"],
      enabled: has,
      run: () => hand.moveBy(1),
    },
    {
      id: "back-to-saved",
      title: "Back to saved",
      group,
      enabled: differences.length > 0,
      run: () => void hand.backToSaved(),
    },
    ...MODELS.map((model, at) => ({
      id: `add-${model.id}`,
      title: `Add ${model.name}`,
      group,
      keys: [`${at + 1}`],
      run: () => hand.add(model.id),
    })),
  ]);
}

function OpenBench({ bench }: { readonly bench: BenchState }) {
  const { chain, selected, differences, tempo, reference, editing, strip, place } = bench;
  const hand = useBenchGestures(bench);
  const saveAgain = useSaveAgain(bench);
  useBenchActions(bench, hand, saveAgain);
  const processors = processorsOf(chain);
  const changed = new Set(
    differences.flatMap((d) =>
      d.kind === "value" || d.kind === "enabled" ? [d.processor] : d.kind === "added" ? [d.processor.key] : [],
    ),
  );
  const model = selected ? findModel(selected.model) : null;
  return (
    <Panels
      id="bench"
      panes={[
        {
          id: "work",
          label: "the bench",
          min: 620,
          children: (
            <section
              aria-label="Bench"
              className="flex h-full min-w-0 flex-col gap-3 overflow-auto px-[18px] pt-[14px] pb-3"
            >
              <Header bench={bench} onSave={saveAgain} />
              <Tiles
                processors={processors}
                selected={selected?.key ?? null}
                changed={changed}
                tempo={tempo}
                onSelect={bench.select}
                onAdd={hand.add}
              />
              {selected && model ? (
                <Editor bench={bench} model={model} selected={selected} hand={hand} />
              ) : (
                <div className="border-edge border-t pt-3">
                  <Empty title="No plugins yet" className="px-0">
                    <p>
                      Add the first: <kbd className="key">1</kbd> equaliser, <kbd className="key">2</kbd> compressor,{" "}
                      <kbd className="key">3</kbd> delay. What you do is heard at once.
                    </p>
                  </Empty>
                </div>
              )}
            </section>
          ),
        },
        {
          id: "differs",
          label: "what differs",
          size: 268,
          min: 220,
          children: (
            <aside aria-label="What differs" className="flex h-full flex-col bg-card">
              <div className="flex min-h-0 flex-1 flex-col gap-[14px] overflow-auto px-[18px] py-4">
                <DifferencesPane
                  chain={chain}
                  reference={reference}
                  differences={differences}
                  onPutBack={hand.putBack}
                />
              </div>
              <div className="flex flex-wrap gap-2 px-[18px] py-4">
                <Button
                  disabled={processors.length === 0}
                  onClick={() => place.project && strip && openSave({ project: place.project, strip: strip.id })}
                >
                  Save as…
                </Button>
                {reference && (
                  <Button disabled={differences.length === 0} onClick={() => hand.backToSaved()}>
                    Back to saved
                  </Button>
                )}
              </div>
              <p className="px-[18px] pb-4 text-small text-soft">
                {bench.isDraft
                  ? "A draft: kept until it is saved."
                  : `Each change goes into ${editing.body?.project.name ?? "the project"} at once.`}
              </p>
            </aside>
          ),
        },
      ]}
    />
  );
}

function StateWords({ bench: { reference, differences } }: { readonly bench: BenchState }) {
  if (reference === null) return "not saved";
  if (differences.length === 0) return `version ${reference.version}, nothing changed`;
  return (
    <span className="text-edit">
      {describeDifferences(differences)} differ{differences.length === 1 ? "s" : ""} from version {reference.version}
    </span>
  );
}

function Header({ bench, onSave }: { readonly bench: BenchState; readonly onSave: () => void }) {
  const { strip, reference, differences, editing, isDraft } = bench;
  const name = reference?.name ?? strip?.look.name ?? "";
  const where = isDraft
    ? reference
      ? "from the library"
      : "new"
    : `strip ${strip?.look.name} of ${editing.body?.project.name}`;
  return (
    <header className="flex flex-none items-center gap-3">
      <div className="min-w-0">
        <h1 className="h1 truncate">{name}</h1>
        <p className="truncate text-small text-soft" aria-live="polite">
          {where} · <StateWords bench={bench} />
        </p>
      </div>
      <span className="ml-auto flex flex-none gap-2">
        <HistoryButtons editing={editing} />
        <Button
          main
          disabled={(strip?.inserts.nodes.length ?? 0) === 0 || (reference !== null && differences.length === 0)}
          onClick={onSave}
        >
          {reference ? "Save new version" : "Save…"}
        </Button>
      </span>
    </header>
  );
}

interface EditorHostProps {
  readonly bench: BenchState;
  readonly model: Model;
  readonly selected: Processor;
  readonly hand: ReturnType<typeof useBenchGestures>;
}

function Editor({ bench, model, selected, hand }: EditorHostProps) {
  const { partners, tempo, place, strip } = bench;
  const Family = EDITORS[model.family];
  return (
    <>
      <div className="flex flex-none items-center gap-3 border-edge border-t pt-[10px]">
        <LabelField
          processor={selected}
          onCall={(label) => void bench.gesture(`Name ${model.name}`, (h) => gestures.callIt(h, selected.key, label))}
        />
        {selected.label !== undefined && <span className="text-small text-soft">{model.name}</span>}
        {selected.from && <span className="text-small text-soft">from {selected.from.name}</span>}
        <span className="ml-auto flex items-center gap-2 text-small">
          <Toggle label={selected.enabled ? "On" : "Off"} on={selected.enabled} onChange={hand.toggle} />
          <Button small aria-label="Move earlier" title="Move earlier (Alt ←)" onClick={() => hand.moveBy(-1)}>
            <ArrowLeft size={14} aria-hidden="true" />
          </Button>
          <Button small aria-label="Move later" title="Move later (Alt →)" onClick={() => hand.moveBy(1)}>
            <ArrowRight size={14} aria-hidden="true" />
          </Button>
          <Button
            small
            onClick={() =>
              place.project && strip && openSave({ project: place.project, strip: strip.id, processor: selected.key })
            }
          >
            Save this plugin…
          </Button>
          <Button small onClick={hand.takeOut}>
            <Trash2 size={14} aria-hidden="true" />
            Take out
          </Button>
        </span>
      </div>
      <Family
        key={selected.key}
        model={model}
        processor={selected}
        saved={partners.get(selected.key) ?? null}
        tempo={tempo}
        onPreview={(values) => bench.preview(selected.key, values)}
        onTurn={(values) => bench.turn(selected.key, values)}
      />
    </>
  );
}

/** The plugin's name in its slot, typed over in place. */
function LabelField({
  processor,
  onCall,
}: {
  readonly processor: Processor;
  readonly onCall: (label: string | null) => void;
}) {
  const shown = processorName(processor);
  return (
    <input
      key={`${processor.key} ${shown}`}
      aria-label="Name of this plugin"
      defaultValue={shown}
      maxLength={200}
      size={Math.max(10, shown.length)}
      className="-mx-1 min-w-0 rounded-card bg-transparent px-1 font-name text-[18px] leading-6 hover:bg-sunk focus:bg-card"
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") {
          event.currentTarget.value = shown;
          event.currentTarget.blur();
        }
      }}
      onBlur={(event) => {
        const typed = event.target.value.trim();
        if (typed === shown) return;
        const isModel = typed === "" || typed === findModel(processor.model)?.name;
        onCall(isModel ? null : typed);
      }}
    />
  );
}
