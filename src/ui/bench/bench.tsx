"use client";

import { useRouter } from "next/navigation";
import { processorsOf } from "@/core/chains/chain";
import { findModel } from "@/core/processors/models";
import { Empty, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Panels } from "../kit/panels";
import { openSave } from "../save/save";
import { useSaveAgain } from "../save/save-again";
import { DifferencesPane } from "./differences-pane";
import { Tiles } from "./tiles";
import { type Bench as BenchState, useBench } from "./use-bench";
import { useBenchGestures } from "./use-bench-gestures";
import { useBenchActions } from "./use-bench-actions";
import { Header } from "./bench-header";
import { Editor } from "./editor-host";

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
