import { type Model, defaultValues, designOf, getSpec } from "../model";
import { type HeardValues, type ParamId, type ParamSpec, positionOf, valueAt } from "../../units/param-spec";

import { levelCurve } from "./eq-design";
import { FIT_FREQUENCIES } from "./fit-points";

/** A fitted setting, and how far its response is from the one that was wanted. */
export interface EqFit {
  readonly values: HeardValues;
  /** In dB, over the octaves that were compared. */
  readonly rms: number;
  readonly worst: number;
}

const RATE = 48_000;
/** A cut falls without end; what is below this is not worth bending the rest for. In dB. */
const DEEPEST = -30;

const curveOf = (model: Model, values: HeardValues): readonly number[] => {
  const level = levelCurve(designOf(model, "equaliser"), values, RATE);
  return FIT_FREQUENCIES.map((hz) => Math.max(DEEPEST, level(hz)));
};

/**
 * The setting of an equaliser whose response is nearest to that of another: least squares in dB by the method of
 * Levenberg and Marquardt (D. Marquardt, SIAM J. Appl. Math. 11, 1963), from several beginnings, the best of which is
 * taken. Deterministic.
 */
export function fitEq(from: Model, values: HeardValues, to: Model): EqFit {
  const wanted = curveOf(from, values);
  const movable = to.params.filter((spec) => !spec.choices).map((spec) => spec.id);
  const fits = designOf(to, "equaliser")
    .starts(wanted)
    .map(({ values: start, free = movable }) => refine(to, wanted, Object.assign({}, numbers(to), start), free));
  return fits.reduce((best, fit) => (fit.rms < best.rms - 1e-9 ? fit : best));
}

const numbers = (model: Model): HeardValues => defaultValues(model) as HeardValues;

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
  for (const { params, gain } of designOf(model, "equaliser").bands(rounded, RATE)) {
    if (params.gain === undefined || Math.abs(gain) >= NOTHING) continue;
    const band = params.gain.replace(/\.?gain$/, "");
    for (const { id } of model.params)
      if (id === params.gain || id.startsWith(`${band}.`)) rounded[id] = start[id] ?? 0;
  }
  return rounded;
}
