import type { Chain, ChainNode, Lane, MacroTarget, Split } from "../chains/chain";
import { findTargetSpec, targetValue } from "../chains/macros";
import { LANE_LEVEL } from "../chains/params";
import { nameApart, panLawOf } from "../chains/tree";
import { frequencySpec } from "../processors/specs";
import { formatLevel, formatPan, formatPlain } from "../units/format";
import { formatNoteLength, isNoteLength } from "../units/note-length";
import { type SheetContext, fromWords, pluginBlock } from "./plugin-block";
import { type Block, type Table, onOrOff } from "./sheet";

const heading = (text: string, aside: string): Block => ({ kind: "heading", rank: 2, text, aside });

const LETTERS = "abcdefgh";

/** "on, −3.0 dB, pan L 30". */
const laneWords = (lane: Lane): string =>
  [
    onOrOff(lane.enabled),
    `${formatLevel(lane.level, LANE_LEVEL.min)} dB`,
    lane.pan === 0 ? formatPan(0) : `${panLawOf(lane)} ${formatPan(lane.pan)}`,
  ].join(", ");

const CROSSOVER = frequencySpec("crossover", "Crossover", [20, 20_000, 1000]);
const hertz = (hz: number): string => formatPlain(CROSSOVER, hz);

/** "2 lanes of the same sound", "3 bands, parted at 120 Hz and 2.5 kHz". */
const splitWords = ({ by, lanes }: Split): string =>
  by.way === "copy"
    ? `${lanes.length} lanes of the same sound`
    : `${lanes.length} bands, parted at ${by.crossovers.map(hertz).join(" and ")}`;

/** A node, and what it holds, in the order of the signal. */
function nodeBlocks(node: ChainNode, place: string, context: SheetContext): readonly Block[] {
  switch (node.type) {
    case "processor":
      return [pluginBlock(node, place, context)];
    case "section": {
      const from = fromWords(node.from);
      const aside = [onOrOff(node.enabled), ...(from ? [`from ${from}`] : [])].join(", ");
      return [heading(`${place} ${node.name}`, aside), ...listBlocks(node.nodes, `${place}.`, context)];
    }
    case "split":
      return [
        heading(`${place} Split`, splitWords(node)),
        ...node.lanes.flatMap((lane, at) => {
          const own = `${place}${LETTERS[at] ?? at + 1}`;
          return [heading(`${own} ${lane.name}`, laneWords(lane)), ...listBlocks(lane.nodes, `${own}.`, context)];
        }),
      ];
  }
}

const listBlocks = (nodes: readonly ChainNode[], before: string, context: SheetContext): readonly Block[] =>
  nodes.flatMap((node, at) => nodeBlocks(node, `${before}${at + 1}`, context));

function targetRow(chain: Chain, target: MacroTarget): readonly string[] {
  const spec = findTargetSpec(chain, target);
  const what = spec ? spec.name : target.param;
  const now = targetValue(chain, target);
  const write = (value: number) => (spec ? formatPlain(spec, value) : String(value));
  return [
    `${nameApart(chain, target.node)}: ${what}`,
    write(target.from),
    write(target.to),
    target.bend === 0 ? "" : target.bend.toFixed(2),
    now === null ? "" : isNoteLength(now) ? formatNoteLength(now) : write(now),
  ];
}

const MACRO_COLUMNS: Table["columns"] = [
  { title: "Macro" },
  { title: "Moves" },
  { title: "From", isNumber: true },
  { title: "To", isNumber: true },
  { title: "Bend", isNumber: true },
  { title: "Stands at", isNumber: true },
];

function macrosBlock(chain: Chain): readonly Block[] {
  if (chain.macros.length === 0) return [];
  const rows = chain.macros.flatMap(({ name, axes }) =>
    axes.flatMap((targets, axis) => {
      const called = axes.length > 1 ? `${name}, ${axis === 0 ? "across" : "up"}` : name;
      return targets.length === 0
        ? [[called, "nothing yet", "", "", "", ""]]
        : targets.map((target, n) => [n === 0 ? called : "", ...targetRow(chain, target)]);
    }),
  );
  return [{ kind: "table", title: "Macros", table: { columns: MACRO_COLUMNS, rows } }];
}

/** All of a chain: its plugins in the order of the signal, how it is wired, and what its macros move. */
export const chainBlocks = (chain: Chain, context: SheetContext): readonly Block[] => [
  ...listBlocks(chain.nodes, "", context),
  ...macrosBlock(chain),
];
