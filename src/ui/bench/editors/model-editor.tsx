"use client";

import dynamic from "next/dynamic";
import type { Family } from "@/core/processors/model";
import { Loading } from "../../kit/bits";
import type { EditorProps } from "./editor";

const loading = () => <Loading what="Opening the editor" />;

/** Each family's own plot as its editor; the code comes when one is opened. */
const EDITORS: Record<Family, React.ComponentType<EditorProps>> = {
  equaliser: dynamic(() => import("./curve-editor").then((m) => m.CurveEditor), { loading }),
  dynamics: dynamic(() => import("./dynamics-editor").then((m) => m.DynamicsEditor), { loading }),
  saturation: dynamic(() => import("./saturation-editor").then((m) => m.SaturationEditor), { loading }),
  modulation: dynamic(() => import("./modulation-editor").then((m) => m.ModulationEditor), { loading }),
  delay: dynamic(() => import("./echo-editor").then((m) => m.EchoEditor), { loading }),
  reverb: dynamic(() => import("./reverb-editor").then((m) => m.ReverbEditor), { loading }),
  utility: dynamic(() => import("./utility-editor").then((m) => m.UtilityEditor), { loading }),
  instrument: dynamic(() => import("./instrument-editor").then((m) => m.InstrumentEditor), { loading }),
};

/** Where a model has more to it than its family: bands and taps that come and go. */
const OWN_EDITORS: Readonly<Record<string, React.ComponentType<EditorProps>>> = {
  "parametric-eq": dynamic(() => import("./bands-editor").then((m) => m.BandsEditor), { loading }),
  "multitap-delay": dynamic(() => import("./taps-editor").then((m) => m.TapsEditor), { loading }),
};

/** The editor of a plugin: its model's own, or its family's. */
export function ModelEditor(props: EditorProps) {
  const Found = OWN_EDITORS[props.model.id] ?? EDITORS[props.model.family];
  return <Found {...props} />;
}
