import { type DemoPreset, ROW_PRESETS } from "./presets";
import { WIRED_PRESETS } from "./wired-presets";
import { PLACES } from "./years/places";
import { PLAYERS } from "./years/players";
import { UNFINISHED } from "./years/unfinished";
import { VOICES } from "./years/voices";

/** Plugin presets, chains and strips of the demo; what projects came from. */
export const DEMO_SOUNDS: readonly DemoPreset[] = [
  ...ROW_PRESETS,
  ...WIRED_PRESETS,
  ...VOICES,
  ...PLAYERS,
  ...PLACES,
  ...UNFINISHED,
];
