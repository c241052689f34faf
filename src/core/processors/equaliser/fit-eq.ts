import { type Model, defaultValues, designOf, getSpec } from "../model";
import { type HeardValues, type ParamId, type ParamSpec, positionOf, valueAt } from "../../units/param-spec";

import { type Cut, type Cuts, NO_CUTS, levelCurve } from "./eq-design";
import { FIT_FREQUENCIES } from "./fit-points";

/** A fitted setting, and how far its response is from the one that was wanted. */
export interface EqFit {
  readonly values: HeardValues;
  /** In dB, over the octaves that were compared: not beyond a cut that the other has less or more steep. */
  readonly rms: number;
  readonly worst: number;
}

const RATE = 48_000;
/** A cut falls without end; what is below this is not worth bending the rest for. In dB. */
const DEEPEST = -30;

/** In dB at each of the points. With cuts, less what those take away: what is left of the curve. */
const curveOf = (model: Model, values: HeardValues, less: Cuts = NO_CUTS): readonly number[] => {
  const level = levelCurve(designOf(model, "equaliser"), values, RATE);
  return FIT_FREQUENCIES.map((hz) => {
    const cut = takenBy(less.low, hz / (less.low?.hz ?? 1)) + takenBy(less.high, (less.high?.hz ?? 1) / hz);
    return Math.max(DEEPEST, Math.min(-DEEPEST, Math.max(DEEPEST, level(hz)) + Math.min(-DEEPEST, cut)));
  });
};

/** What a Butterworth filter of so many orders takes away at so many times its frequency, in dB. */
const takenBy = (cut: Cut | null, ratio: number): number =>
  cut === null ? 0 : 10 * Math.log10(1 + ratio ** (-2 * Math.round(cut.slope / 6)));

/** The cuts of a setting; of a model that has none, none. */
export const cutsOf = (model: Model, values: HeardValues): Cuts =>
  designOf(model, "equaliser").cuts?.(values) ?? NO_CUTS;

/**
 * The setting of an equaliser whose response is nearest to that of another: least squares in dB by the method of
 * Levenberg and Marquardt (D. Marquardt, SIAM J. Appl. Math. 11, 1963), from several beginnings, the best of which is
 * taken. Deterministic.
 */
export function fitEq(from: Model, values: HeardValues, to: Model): EqFit {
  const wanted = curveOf(from, values);
  const cuts = cutsOf(from, values);
  const movable = to.params.filter((spec) => !spec.choices).map((spec) => spec.id);
  const fits = designOf(to, "equaliser")
    .starts(curveOf(from, values, cuts), cuts)
    .map(({ values, free = movable }) => {
      const start: HeardValues = Object.assign({}, numbers(to), values);
      return refine(to, { wanted, counts: betweenCuts(unlike(cuts, cutsOf(to, start))) }, start, free);
    });
  return fits.reduce((best, fit) => (fit.rms < best.rms - 1e-9 ? fit : best));
}

const numbers = (model: Model): HeardValues => defaultValues(model) as HeardValues;

const ITERATIONS = 60;
/** What a dB of gain in a band counts beside a dB of error: bands do not work against each other for the last tenth. */
const THRIFT = 0.03;
/** A step of a parameter on its ruler, for the slope. */
const STEP = 1e-4;

/** Beyond a cut there is little to be heard, and slopes differ from model to model: in octaves from where it begins. */
const INSIDE = 0.5;

/** Whether each of the points is compared: those between the cuts. */
const betweenCuts = ({ low, high }: Cuts): readonly boolean[] =>
  FIT_FREQUENCIES.map(
    (hz) => hz > (low?.hz ?? 0) * 2 ** INSIDE && hz < (high?.hz ?? Number.POSITIVE_INFINITY) / 2 ** INSIDE,
  );

/** The cuts of one that the other does not have as steep. */
const unlike = (cuts: Cuts, others: Cuts): Cuts => ({
  low: cuts.low?.slope === others.low?.slope ? null : cuts.low,
  high: cuts.high?.slope === others.high?.slope ? null : cuts.high,
});

interface Goal {
  readonly wanted: readonly number[];
  readonly counts: readonly boolean[];
}

/** Moves the free parameters, each on its ruler from 0 to 1, until nothing is gained any more. */
function refine(model: Model, { wanted, counts }: Goal, start: HeardValues, free: readonly ParamId[]): EqFit {
  const specs = free.map((id) => getSpec(model, id));
  const valuesAt = (places: readonly number[]): HeardValues => ({
    ...start,
    ...Object.fromEntries(specs.map((spec, n) => [spec.id, valueAt(spec, places[n]!)])),
  });
  const gains = specs.flatMap((spec, n) => (spec.unit === "dB" && spec.id !== "output" ? [n] : []));
  const errorsAt = (places: readonly number[]): number[] => [
    ...curveOf(model, valuesAt(places)).map((dB, i) => (counts[i] ? dB - wanted[i]! : 0)),
    ...gains.map((n) => THRIFT * valueAt(specs[n]!, places[n]!)),
  ];
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
  const apart = errors.filter((_, i) => counts[i] === true);
  return {
    values: valuesAt(places),
    rms: Math.sqrt(squares(apart) / Math.max(1, apart.length)),
    worst: apart.reduce((worst, error) => Math.max(worst, Math.abs(error)), 0),
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
  for (const { params, gain } of designOf(model, "equaliser").bands(rounded, RATE)) {
    if (params.gain === undefined || Math.abs(gain) >= NOTHING) continue;
    const band = params.gain.replace(/\.?gain$/, "");
    for (const { id } of model.params)
      if (id === params.gain || id.startsWith(`${band}.`)) rounded[id] = start[id] ?? 0;
  }
  return rounded;
}
