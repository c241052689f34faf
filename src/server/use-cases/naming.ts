import type { Naming } from "@/contracts/library";
import { findNamingFaults } from "@/core/library/naming";
import type { Context } from "../data/context";
import { findPreset } from "../repositories/presets";
import { listNamed } from "../repositories/preset-lists";

/** Names that are shown in one go; who mends these asks again. */
const MOST = 200;

/** Names that ask to be mended, each with a proposal, the worst first. */
export async function listNaming({ db }: Context): Promise<Naming> {
  const found = findNamingFaults(await listNamed(db));
  const items: Naming["items"] = [];
  for (const { id, faults, proposed } of found.slice(0, MOST)) {
    const preset = await findPreset(db, id);
    if (preset) items.push({ preset, faults: [...faults], proposed });
  }
  return { total: found.length, items };
}
