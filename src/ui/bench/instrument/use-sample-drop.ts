"use client";

import { findModel } from "@/core/processors/models";
import type { DragEvent } from "react";
import { useKeepFile } from "../../listening/materials";
import type { Instrument } from "./use-instrument";

/** A sound that is dropped on an instrument strip opens in a sampler, or in the sampler that is open. */
export function useSampleDrop(instrument: Instrument | null) {
  const keep = useKeepFile();
  if (!instrument) return {};
  const load = async (file: File) => {
    const kept = await keep(file);
    if (!kept) return;
    const { selected } = instrument;
    if (!selected || !findModel(selected.instrument.model)?.playsSample) return instrument.add("sampler", kept);
    instrument.change(`Load ${kept.name}`, selected.key, (layer) => ({
      ...layer,
      name: kept.name,
      instrument: { ...layer.instrument, state: { hash: kept.hash } },
    }));
  };
  return {
    onDragOver: (event: DragEvent) => {
      if (event.dataTransfer.types.includes("Files")) event.preventDefault();
    },
    onDrop: (event: DragEvent) => {
      const [file] = event.dataTransfer.files;
      if (!file) return;
      event.preventDefault();
      void load(file);
    },
  };
}
