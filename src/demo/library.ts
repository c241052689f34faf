import { type DemoPreset, ROW_PRESETS } from "./presets";
import { WIRED_PRESETS } from "./wired-presets";

/** Everything that the demo's library holds. */
export const DEMO_PRESETS: readonly DemoPreset[] = [...ROW_PRESETS, ...WIRED_PRESETS];
