"use client";

import { useCallback, useEffect, useRef } from "react";
import { onMeters } from "../../listening/state";

/** A sample above this is signal; one above full scale clips the next converter. */
const ARRIVES = 0.001;

export type LightRef = (key: string) => (element: HTMLElement | null) => void;

/** Lights where signal arrives and where it clips, told by colour and by shape: drawn live, without React. */
export function useLights(): LightRef {
  const lights = useRef(new Map<string, HTMLElement>());
  useEffect(
    () =>
      onMeters(({ processors }) => {
        for (const { key, peakIn } of processors) {
          const light = lights.current.get(key);
          if (light) light.dataset.level = peakIn > 1 ? "clips" : peakIn > ARRIVES ? "arrives" : "none";
        }
      }),
    [],
  );
  return useCallback(
    (key) => (element) => {
      if (element) lights.current.set(key, element);
      else lights.current.delete(key);
    },
    [],
  );
}
