import { type DemoPreset, ROW_PRESETS } from "./presets";
import { WIRED_PRESETS } from "./wired-presets";
import { PLACES } from "./years/places";
import { PLAYERS } from "./years/players";
import { UNFINISHED } from "./years/unfinished";
import { VOICES } from "./years/voices";

/** Everything that the demo's library holds. */
export const DEMO_PRESETS: readonly DemoPreset[] = [
  ...ROW_PRESETS,
  ...WIRED_PRESETS,
  ...VOICES,
  ...PLAYERS,
  ...PLACES,
  ...UNFINISHED,
];
