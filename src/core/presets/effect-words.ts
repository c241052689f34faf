import { processorsOf } from "../chains/tree";
import { counted } from "../names/count";
import { layersOf } from "../strips/layers";
import type { Strip } from "../strips/strip";
import { asStrip } from "./as-strip";
import type { Content } from "./preset";

type Target = Pick<Strip, "inserts" | "source" | "look" | "kind">;

const pluginsOn = (targets: readonly Target[]): number =>
  targets.reduce((sum, { inserts }) => sum + processorsOf(inserts).length, 0);

/** What stands in the way of an instrument: nothing is replaced where there is none. */
const instrumentsOn = (targets: readonly Target[]): number =>
  targets.reduce((sum, strip) => sum + layersOf(strip).length, 0);

/** What an instrument takes the place of: "1 instrument and 2 plugins". */
function replacedBy(targets: readonly Target[], inserts: boolean): string {
  const [instruments, plugins] = [instrumentsOn(targets), inserts ? pluginsOn(targets) : 0];
  const parts = [
    instruments > 0 ? counted(instruments, "instrument") : null,
    plugins > 0 ? counted(plugins, "plugin") : null,
  ];
  return parts.filter((part) => part !== null).join(" and ");
}

/**
 * What applying a preset does to strips, told before it is done: "replaces 2 plugins of Horn", "goes behind the 3 plugins of Horn".
 * Null where it is for no strip that is there.
 */
export function effectWords(content: Content, targets: readonly Target[]): string | null {
  const saved = asStrip(content);
  const [only] = targets;
  if (!saved || !only) return null;
  const where = targets.length === 1 ? only.look.name : counted(targets.length, "strip");
  const plugins = pluginsOn(targets);
  if (saved.source?.type === "layers") {
    const replaced = replacedBy(targets, saved.inserts !== undefined);
    return replaced === "" ? `plays on ${where}` : `replaces ${replaced} of ${where}`;
  }
  if (!saved.inserts) return `sets ${where}`;
  if (plugins === 0) return `goes onto ${where}`;
  return content.kind === "plugin"
    ? `goes behind the ${counted(plugins, "plugin")} of ${where}`
    : `replaces ${counted(plugins, "plugin")} of ${where}`;
}
