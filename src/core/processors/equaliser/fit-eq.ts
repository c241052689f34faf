import { eqDesignOf } from "../designs";
import { type HeardValues, type Model, defaultValues, getSpec } from "../model";
import { type ParamId, type ParamSpec, positionOf, valueAt } from "../../units/param-spec";
import { levelCurve } from "./eq-design";
import { BAND_TYPES, PARAMETRIC_EQ, bandParam } from "./parametric-eq/model";

/** A fitted setting, and how far its response is from the one that was wanted. */
export interface EqFit {
  readonly values: HeardValues;
  /** In dB, over the octaves that were compared. */
  readonly rms: number;
  readonly worst: number;
}

const RATE = 48_000;
/** Compared from 30 Hz to 18 kHz, every sixth of an octave: what lies outside is hardly heard and would bend the rest. */
const POINTS = 57;
export const FIT_FREQUENCIES: readonly number[] = Array.from(
  { length: POINTS },
  (_, i) => 30 * (18_000 / 30) ** (i / (POINTS - 1)),
);

/** A cut falls without end; what is below this is not worth bending the rest for. In dB. */
const DEEPEST = -30;

const curveOf = (model: Model, values: HeardValues): readonly number[] => {
  const level = levelCurve(eqDesignOf(model.id), values, RATE);
  return FIT_FREQUENCIES.map((hz) => Math.max(DEEPEST, level(hz)));
};

/**
 * The setting of an equaliser whose response is nearest to that of another: least squares in dB by the method of
 * Levenberg and Marquardt (D. Marquardt, SIAM J. Appl. Math. 11, 1963), from several beginnings, the best of which is
 * taken. Deterministic.
 */
export function fitEq(from: Model, values: HeardValues, to: Model): EqFit {
  const wanted = curveOf(from, values);
  const fits = startsFor(to, wanted).map(({ start, free }) => refine(to, wanted, start, free));
  return fits.reduce((best, fit) => (fit.rms < best.rms - 1e-9 ? fit : best));
}

/** A setting to begin with, and the parameters that may move. */
interface Start {
  readonly start: HeardValues;
  readonly free: readonly ParamId[];
}

const numbers = (model: Model): HeardValues => defaultValues(model) as HeardValues;

/** The curve's own bends: where it stands out most, one after the other, what each explains taken away. */
function peaksOf(wanted: readonly number[], count: number): readonly { hz: number; gain: number }[] {
  const rest = [...wanted];
  return Array.from({ length: count }, () => {
    const at = rest.reduce((best, dB, i) => (Math.abs(dB) > Math.abs(rest[best]!) ? i : best), 0);
    const gain = rest[at]!;
    // A bell about an octave and a half wide goes with it.
    for (let i = 0; i < rest.length; i++) rest[i]! -= gain * Math.exp(-(((i - at) / 5) ** 2));
    return { hz: FIT_FREQUENCIES[at]!, gain };
  }).toSorted((a, b) => a.hz - b.hz);
}

function startsFor(to: Model, wanted: readonly number[]): readonly Start[] {
  switch (to.id) {
    case "parametric-eq":
      return parametricStarts(wanted);
    case "console-eq":
      return consoleStarts(to, wanted);
    case "graphic-eq":
      return [graphicStart(to, wanted)];
    default:
      return plainStarts(to, wanted);
  }
}

/** A fall at an end of the curve that no shelf makes. */
const fallsAt = (wanted: readonly number[], end: "low" | "high"): boolean => {
  const [outer, inner] = end === "low" ? [wanted[0]!, wanted[8]!] : [wanted.at(-1)!, wanted.at(-9)!];
  return inner - outer > 4;
};

function parametricStarts(wanted: readonly number[]): readonly Start[] {
  const ends = (["low", "high"] as const).map((end) =>
    fallsAt(wanted, end) ? [`${end} cut`, `${end} shelf`] : [`${end} shelf`],
  );
  return ends[0]!.flatMap((low) =>
    ends[1]!.map((high): Start => {
      const start: Record<string, number> = { ...numbers(PARAMETRIC_EQ) };
      const put = (n: 1 | 2 | 3 | 4 | 5 | 6, type: string, hz: number, gain: number) =>
        Object.assign(start, {
          [bandParam(n, "used")]: 1,
          [bandParam(n, "on")]: 1,
          [bandParam(n, "type")]: BAND_TYPES.indexOf(type as (typeof BAND_TYPES)[number]),
          [bandParam(n, "freq")]: hz,
          [bandParam(n, "gain")]: gain,
          [bandParam(n, "q")]: type === "bell" ? 1 : Math.SQRT1_2,
          [bandParam(n, "slope")]: 12,
        });
      put(1, low, low === "low cut" ? 50 : 120, wanted[0]!);
      peaksOf(wanted, 4).forEach(({ hz, gain }, at) => put((at + 2) as 2 | 3 | 4 | 5, "bell", hz, gain));
      put(6, high, high === "high cut" ? 12_000 : 6000, wanted.at(-1)!);
      const moving = ([1, 2, 3, 4, 5, 6] as const).flatMap((n) => {
        const isCut = (n === 1 && low === "low cut") || (n === 6 && high === "high cut");
        return isCut
          ? [bandParam(n, "freq"), bandParam(n, "q")]
          : [bandParam(n, "freq"), bandParam(n, "gain"), bandParam(n, "q")];
      });
      return { start, free: [...moving, "output"] };
    }),
  );
}

function consoleStarts(to: Model, wanted: readonly number[]): readonly Start[] {
  const all = numbers(to);
  const within = (id: ParamId, hz: number) => {
    const { min, max } = getSpec(to, id);
    return Math.min(max, Math.max(min, hz));
  };
  const [low, high] = peaksOf(wanted, 2);
  const free = to.params.filter((spec) => !spec.choices).map((spec) => spec.id);
  const cuts = {
    ...(fallsAt(wanted, "low") ? { lowCut: 60 } : {}),
    ...(fallsAt(wanted, "high") ? { highCut: 12_000 } : {}),
  };
  return [0, 1].flatMap((lowShape) =>
    [0, 1].map((highShape) => ({
      start: {
        ...all,
        ...cuts,
        "low.shape": lowShape,
        "high.shape": highShape,
        "low.gain": wanted[2]!,
        "high.gain": wanted.at(-6)!,
        "lowMid.freq": within("lowMid.freq", low!.hz),
        "lowMid.gain": low!.gain,
        "highMid.freq": within("highMid.freq", high!.hz),
        "highMid.gain": high!.gain,
      },
      free,
    })),
  );
}

function graphicStart(to: Model, wanted: readonly number[]): Start {
  const gains = to.params.filter((spec) => spec.id.startsWith("gain"));
  const at = (hz: number) =>
    FIT_FREQUENCIES.reduce(
      (best, f, i) => (Math.abs(Math.log(f / hz)) < Math.abs(Math.log(FIT_FREQUENCIES[best]! / hz)) ? i : best),
      0,
    );
  const start = {
    ...numbers(to),
    ...Object.fromEntries(gains.map(({ id }) => [id, wanted[at(Number(id.slice(4)))]!])),
  };
  return { start, free: [...gains.map((spec) => spec.id), "output"] };
}

function plainStarts(to: Model, wanted: readonly number[]): readonly Start[] {
  const free = to.params.filter((spec) => !spec.choices).map((spec) => spec.id);
  const tilt = (wanted.at(-1)! - wanted[0]!) / 2;
  const cuts = {
    ...(fallsAt(wanted, "low") ? { lowCut: 60 } : {}),
    ...(fallsAt(wanted, "high") ? { highCut: 12_000 } : {}),
  };
  return [400, 1200].map((pivot) => ({ start: { ...numbers(to), ...cuts, tilt, pivot }, free }));
}

const ITERATIONS = 60;
/** A step of a parameter on its ruler, for the slope. */
const STEP = 1e-4;

/** Moves the free parameters, each on its ruler from 0 to 1, until nothing is gained any more. */
function refine(model: Model, wanted: readonly number[], start: HeardValues, free: readonly ParamId[]): EqFit {
  const specs = free.map((id) => getSpec(model, id));
  const valuesAt = (places: readonly number[]): HeardValues => ({
    ...start,
    ...Object.fromEntries(specs.map((spec, n) => [spec.id, valueAt(spec, places[n]!)])),
  });
  const errorsAt = (places: readonly number[]): number[] =>
    curveOf(model, valuesAt(places)).map((dB, i) => dB - wanted[i]!);
  let places = specs.map((spec: ParamSpec) => positionOf(spec, start[spec.id] ?? 0));
  let errors = errorsAt(places);
  let damping = 1e-2;
  for (let round = 0; round < ITERATIONS && damping < 1e8; round++) {
    const slopes = places.map((place, n) => {
      const by = place + STEP > 1 ? -STEP : STEP;
      const moved = errorsAt(places.map((p, m) => (m === n ? p + by : p)));
      return moved.map((error, i) => (error - errors[i]!) / by);
    });
    const step = solve(slopes, errors, damping);
    const next = places.map((place, n) => Math.min(1, Math.max(0, place - step[n]!)));
    const nextErrors = errorsAt(next);
    const [before, after] = [squares(errors), squares(nextErrors)];
    if (after < before) {
      places = next;
      errors = nextErrors;
      damping = Math.max(1e-9, damping / 5);
      if (before - after < 1e-7 * before) break;
    } else damping *= 6;
  }
  return {
    values: valuesAt(places),
    rms: Math.sqrt(squares(errors) / errors.length),
    worst: errors.reduce((worst, error) => Math.max(worst, Math.abs(error)), 0),
  };
}

const squares = (errors: readonly number[]): number => errors.reduce((sum, e) => sum + e * e, 0);

/** (JᵀJ + damping · diag) x = Jᵀe by elimination with the largest pivot; `slopes` holds a column for each parameter. */
function solve(slopes: readonly (readonly number[])[], errors: readonly number[], damping: number): number[] {
  const count = slopes.length;
  const rows = slopes.map((a, n) => {
    const row = slopes.map((b) => a.reduce((sum, x, i) => sum + x * b[i]!, 0));
    row[n]! += damping * (row[n]! + 1e-9) + 1e-12;
    return [...row, a.reduce((sum, x, i) => sum + x * errors[i]!, 0)];
  });
  for (let column = 0; column < count; column++) {
    let pivot = column;
    for (let r = column + 1; r < count; r++)
      if (Math.abs(rows[r]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = r;
    [rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!];
    for (let r = column + 1; r < count; r++) {
      const factor = rows[r]![column]! / rows[column]![column]!;
      for (let c = column; c <= count; c++) rows[r]![c]! -= factor * rows[column]![c]!;
    }
  }
  const x = new Array<number>(count).fill(0);
  for (let r = count - 1; r >= 0; r--) {
    let sum = rows[r]![count]!;
    for (let c = r + 1; c < count; c++) sum -= rows[r]![c]! * x[c]!;
    x[r] = sum / rows[r]![r]!;
  }
  return x;
}

/** Bands that do nothing after a fit stay as the model opens. In dB. */
const NOTHING = 0.15;

/** Rounded as a person would set them, and without bands that do nothing. */
export function tidied(model: Model, values: HeardValues): HeardValues {
  const rounded: Record<ParamId, number> = Object.fromEntries(
    model.params.map((spec) => {
      const value = values[spec.id] ?? 0;
      return [spec.id, spec.choices ? value : Number(value.toPrecision(3))];
    }),
  );
  const start = numbers(model);
  for (const { params, gain } of eqDesignOf(model.id).bands(rounded, RATE)) {
    if (params.gain === undefined || Math.abs(gain) >= NOTHING) continue;
    const band = params.gain.replace(/\.?gain$/, "");
    for (const { id } of model.params)
      if (id === params.gain || id.startsWith(`${band}.`)) rounded[id] = start[id] ?? 0;
  }
  return rounded;
}
