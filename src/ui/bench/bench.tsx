"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import type { PresetRow } from "@/contracts/records";
import { nodeName } from "@/core/chains/chain";
import { findProcessor, findNode } from "@/core/chains/tree";
import { MODELS, findModel } from "@/core/processors/models";
import { stripName } from "@/core/strips/strip";
import { Empty, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Panels } from "../kit/panels";
import { setSolo } from "../listening/listening";
import { useListening } from "../listening/state";
import { useBenchForShortcuts } from "../plan/own-shortcuts";
import { useSaveAgain } from "./save-again";
import { Header } from "./bench-header";
import { ChainStrip } from "./chain/chain-strip";
import type { ChainView } from "./chain/chain-view";
import { useLights } from "./chain/lights";
import { Editor } from "./editor-host";
import { KeyboardLine } from "./instrument/keyboard-line";
import { LayerEditor } from "./instrument/layer-editor";
import { LayerTiles } from "./instrument/layer-tiles";
import { useSampleDrop } from "./instrument/use-sample-drop";
import { useInstrument } from "./instrument/use-instrument";
import { SectionEditor, SplitEditor } from "./group-editor";
import { SidePane } from "./side/side-pane";
import { type Bench as BenchState, useBench } from "./use-bench";
import { useBenchActions } from "./use-bench-actions";
import { type BenchGestures, useBenchGestures } from "./use-bench-gestures";
import { useClipboard } from "./use-clipboard";

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
  if (strip.kind === "folder")
    return (
      <Empty page title={`${stripName(strip)} is a folder`}>
        <p>It holds strips for the eye and carries no sound. What stands in it can be opened here.</p>
        <BackToProject id={editing.body.project.id} />
      </Empty>
    );
  return <OpenBench bench={bench} />;
}

function BackToProject({ id }: { readonly id: string }) {
  const router = useRouter();
  return <Button onClick={() => router.push(`/projects/${id}`)}>To the project</Button>;
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
      <div className="grid gap-2 pt-4">
        <h2 className="h2">Or an instrument</h2>
        <div className="flex flex-wrap gap-2">
          {MODELS.filter((model) => model.family === "instrument").map((model) => (
            <Button key={model.id} small onClick={() => router.push(`/bench?new=${model.id}`)}>
              {model.name}
            </Button>
          ))}
        </div>
      </div>
    </Empty>
  );
}

function OpenBench({ bench }: { readonly bench: BenchState }) {
  const act = useBenchGestures(bench);
  useLentToShortcuts(act);
  const saveAgain = useSaveAgain(bench);
  useBenchActions(bench, act, saveAgain);
  useClipboard(act);
  const instrument = useInstrument(bench);
  const chainView = useChainView(bench, act);
  // A plugin that is chosen takes the place of the layer that was open.
  const view: ChainView = {
    ...chainView,
    selected: instrument?.selected ? null : chainView.selected,
    chosen: instrument?.selected ? NONE : chainView.chosen,
    onSelect: (key, how) => {
      instrument?.select(null);
      chainView.onSelect(key, how);
    },
  };
  const drop = useSampleDrop(instrument);
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
              {...drop}
              className="flex h-full min-w-0 flex-col gap-3 overflow-auto px-[18px] pt-[14px] pb-3"
            >
              <Header bench={bench} onSave={saveAgain} onTakeNewest={act.takeNewest} />
              {instrument && <LayerTiles instrument={instrument} tempo={bench.tempo} />}
              {instrument && <KeyboardLine />}
              <ChainStrip chain={bench.chain} view={view} onMove={act.moveTo} />
              {instrument?.selected ? (
                <LayerEditor bench={bench} instrument={instrument} layer={instrument.selected} />
              ) : (
                <NodeEditor bench={bench} act={act} />
              )}
            </section>
          ),
        },
        {
          id: "differs",
          label: "the side",
          size: 268,
          min: 264,
          children: <SidePane bench={bench} act={act} instrument={instrument} />,
        },
      ]}
    />
  );
}

/** Own shortcuts put sounds and plugins into the chain as long as the bench is on screen. */
function useLentToShortcuts(act: BenchGestures): void {
  const newest = useRef(act);
  useEffect(() => {
    newest.current = act;
  });
  useEffect(() => {
    const bench = {
      put: (preset: PresetRow) => newest.current.put(preset),
      add: (model: string) => newest.current.add(model),
    };
    useBenchForShortcuts.setState({ bench });
    return () => useBenchForShortcuts.setState({ bench: null });
  }, []);
}

const NONE: ReadonlySet<string> = new Set();

function useChainView(bench: BenchState, act: BenchGestures): ChainView {
  const light = useLights();
  const solo = useListening((l) => l.solo);
  const { changed, selected, chosen, tempo } = bench;
  return {
    tempo,
    selected: selected?.key ?? null,
    chosen: new Set(chosen),
    changed,
    solo,
    light,
    onSelect: bench.select,
    onPreviewLead: (key, value) => bench.preview(key, { [leadOf(bench, key)]: value }),
    onLead: (key, value) => bench.turn(key, { [leadOf(bench, key)]: value }),
    onSolo: setSolo,
    onAdd: act.add,
  };
}

function leadOf({ chain }: BenchState, key: string): string {
  const processor = findProcessor(chain, key);
  return (processor && findModel(processor.model)?.lead) ?? "";
}

/** What the selected node is set by: a plugin's own editor, a section's or a split's. */
function NodeEditor({ bench, act }: { readonly bench: BenchState; readonly act: BenchGestures }) {
  const { selected, saved } = bench;
  if (selected?.type === "section") return <SectionEditor section={selected} bench={bench} act={act} />;
  if (selected?.type === "split") {
    const before = saved && findNode(saved.chain, selected.key)?.node;
    return <SplitEditor split={selected} saved={before?.type === "split" ? before : null} bench={bench} act={act} />;
  }
  const model = selected ? findModel(selected.model) : null;
  if (selected && model) return <Editor bench={bench} model={model} selected={selected} act={act} />;
  if (selected)
    return (
      <div className="border-edge border-t pt-3">
        <Empty title={`${nodeName(selected)} is not known here`} className="px-0">
          <p>Its values are kept as they are, and it is passed by when you listen.</p>
        </Empty>
      </div>
    );
  return (
    <div className="border-edge border-t pt-3">
      <Empty title="No plugins yet" className="px-0">
        <p>
          Add the first: <kbd className="key">1</kbd> equaliser, <kbd className="key">2</kbd> compressor,{" "}
          <kbd className="key">3</kbd> delay. What you do is heard at once.
        </p>
      </Empty>
    </div>
  );
}
