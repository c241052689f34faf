import { type Designs, type Family, type Model, USUAL } from "./model";
import { type Choice, type ParamId, type ParamSpec, SWITCH, type Value } from "../units/param-spec";

/*
 * The descriptions that most models share: a range, a start, and what the value means to other models. Each takes the
 * range as [least, most, start].
 */

type Range = readonly [min: number, max: number, start: Value];
type More = Partial<Pick<ParamSpec, "absent" | "step" | "mayFollowTempo" | "meaning" | "group" | "silentAtMin">>;

const spec =
  (unit: ParamSpec["unit"], taper: ParamSpec["taper"], shared: More = {}) =>
  <Id extends ParamId>(id: Id, name: string, [min, max, start]: Range, more: More = {}): ParamSpec<Id> => ({
    id,
    name,
    unit,
    min,
    max,
    default: start,
    taper,
    ...shared,
    ...more,
  });

/** A gain in dB, half a dB a step. */
export const gainSpec = spec("dB", "linear", { step: 0.5 });
export const frequencySpec = spec("Hz", "log");
export const timeSpec = spec("ms", "log");
export const secondsSpec = spec("s", "log");
export const percentSpec = spec("%", "linear", { step: 1 });
export const ratioSpec = spec(":1", "log", { meaning: "ratio" });
export const qSpec = spec("Q", "log");
export const panSpec = spec("pan", "linear", { step: 1 });

/** At and below this a level is silence. */
export const SILENCE = -60;

/** A level that can be taken down to silence. */
export const levelSpec = <Id extends ParamId>(id: Id, name: string, start: number, more: More = {}): ParamSpec<Id> =>
  gainSpec(id, name, [SILENCE, 6, start], { silentAtMin: true, ...more });

interface MoreOfChoice extends More {
  readonly start?: number;
}

export const choiceSpec = <Id extends ParamId>(
  id: Id,
  name: string,
  labels: readonly string[],
  more: MoreOfChoice = {},
): ParamSpec<Id> =>
  numbersSpec(
    id,
    name,
    labels.map((label, value) => ({ value, label })),
    more,
  );

/** One of a few numbers, in a list from the least to the most; it starts at the first where nothing else is said. */
export const numbersSpec = <Id extends ParamId>(
  id: Id,
  name: string,
  choices: readonly Choice[],
  { start, ...more }: MoreOfChoice = {},
): ParamSpec<Id> => ({
  id,
  name,
  unit: "",
  min: choices[0]!.value,
  max: choices.at(-1)!.value,
  default: start ?? choices[0]!.value,
  taper: "linear",
  choices,
  ...more,
});

export const switchSpec = <Id extends ParamId>(id: Id, name: string, start: 0 | 1, more: More = {}): ParamSpec<Id> =>
  numbersSpec(id, name, SWITCH, { start, ...more });

/** The controls that stand at the end of many models. */
export const OUTPUT = gainSpec("output", "Output", [-24, 24, 0], { meaning: "output.dB" });
export const MIX = percentSpec("mix", "Mix", [0, 100, 100], { meaning: "mix.pct" });
export const dryAndWet = (dry: number, wet: number): readonly ParamSpec<"dry" | "wet">[] => [
  levelSpec("dry", "Dry", dry, { meaning: "dry.dB" }),
  levelSpec("wet", "Wet", wet, { meaning: "wet.dB" }),
];

type Optional = Exclude<keyof typeof USUAL, "structural" | "aheadBy">;

/** What a model says of itself; what it leaves out is as usual. Its parameters say which ids there are. */
export type Rest<F extends Family, Id extends ParamId> = Pick<Model<Id>, "params"> &
  Partial<Pick<Model, Optional | "outputs">> & {
    readonly lead: NoInfer<Id>;
    readonly structural?: readonly NoInfer<Id>[];
    readonly aheadBy?: NoInfer<Id>;
    readonly design: NoInfer<Designs<Id>[F]>;
  };

/** A stereo effect of our own. */
export const effect = <F extends Family, Id extends ParamId>(
  family: F,
  id: string,
  name: string,
  rest: Rest<F, Id>,
): Model<Id> => ({ id, name, maker: "Diathesis", family, ...USUAL, ...rest });
