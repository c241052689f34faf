import type { DemoPreset } from "./presets";
import { DEMO_SETS } from "./sets";
import { DEMO_SOUNDS } from "./sounds";

/** Everything that the demo's library holds. */
export const DEMO_PRESETS: readonly DemoPreset[] = [...DEMO_SOUNDS, ...DEMO_SETS];
