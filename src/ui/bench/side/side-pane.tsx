"use client";

import { useState } from "react";
import { Button } from "../../kit/button";
import { Segments } from "../../kit/segments";
import { openSave } from "../../save/save";
import { DifferencesPane } from "../differences-pane";
import type { Instrument } from "../instrument/use-instrument";
import type { Bench } from "../use-bench";
import type { BenchGestures } from "../use-bench-gestures";
import { CheckPane, useRemarks } from "./check-pane";
import { MacrosPane } from "./macros-pane";
import { SoundsPane } from "./sounds-pane";

interface Props {
  readonly bench: Bench;
  readonly act: BenchGestures;
  readonly instrument: Instrument | null;
}

type Tab = "changes" | "sounds" | "macros" | "check";

/** Beside the bench: what has changed, what else fits, the macros, and what an ear would look at again. */
export function SidePane({ bench, act, instrument }: Props) {
  const [tab, setTab] = useState<Tab>("changes");
  const { differences, chain } = bench;
  const remarks = useRemarks(bench);
  const noted = remarks.filter((r) => r.mend !== null).length;
  const count = (n: number) => (n > 0 ? ` ${n}` : "");
  return (
    <aside aria-label="Beside the bench" className="flex h-full flex-col bg-card">
      <div className="flex-none px-[18px] pt-4 pb-1">
        <Segments
          tight
          label="Shown beside"
          value={tab}
          onChange={setTab}
          options={[
            { value: "changes", label: `Changes${count(differences.length)}` },
            { value: "sounds", label: "Sounds" },
            { value: "macros", label: `Macros${count(chain.macros.length)}` },
            { value: "check", label: `Check${count(noted)}` },
          ]}
        />
      </div>
      <div className="flex min-h-0 flex-1 flex-col gap-[14px] overflow-auto px-[18px] py-3">
        {tab === "changes" && (
          <DifferencesPane
            chain={bench.sounding}
            reference={bench.reference}
            differences={differences}
            onPutBack={act.putBack}
          />
        )}
        {tab === "sounds" && <SoundsPane bench={bench} act={act} instrument={instrument} />}
        {tab === "macros" && <MacrosPane bench={bench} />}
        {tab === "check" && <CheckPane bench={bench} remarks={remarks} />}
      </div>
      {tab === "changes" && <Foot bench={bench} act={act} />}
    </aside>
  );
}

function Foot({ bench, act }: Pick<Props, "bench" | "act">) {
  const { place, strip, reference, differences, chain, isDraft, editing } = bench;
  return (
    <>
      <div className="flex flex-wrap gap-2 px-[18px] py-4">
        <Button
          disabled={chain.nodes.length === 0}
          onClick={() =>
            place.project &&
            strip &&
            openSave({
              project: place.project,
              strips: [strip.id],
              ...(place.layer === null ? {} : { layer: place.layer }),
            })
          }
        >
          Save as…
        </Button>
        {reference && (
          <Button disabled={differences.length === 0} onClick={() => act.backToSaved()}>
            Back to saved
          </Button>
        )}
      </div>
      <p className="px-[18px] pb-4 text-small text-soft">
        {isDraft
          ? "A draft: kept until it is saved."
          : `Each change goes into ${editing.body?.project.name ?? "the project"} at once.`}
      </p>
    </>
  );
}
