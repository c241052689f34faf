import type { Chain } from "../../chains/chain";
import type { Project } from "../../projects/project";
import { PROJECT_SCHEMA } from "../../projects/schema";
import { createStrip } from "../../strips/strip";

/** A project of one audio strip that plays through a chain. */
export const createProject = (inserts: Chain): Project => ({
  schema: PROJECT_SCHEMA,
  id: "one",
  name: "One strip",
  artist: "",
  client: "",
  song: "",
  tempo: 120,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [{ ...createStrip("s", "audio", { name: "Voice" }, null), inserts }],
});
