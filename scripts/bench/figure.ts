/** One measured figure. `holds` says whether it keeps to its goal. */
export interface Figure {
  readonly name: string;
  readonly value: number | null;
  readonly op: "<=" | ">=";
  readonly goal: number;
  readonly unit: string;
  readonly runs: number;
  readonly note?: string;
}

export function print(figure: Figure): void {
  const { value, op, goal } = figure;
  const holds = value === null ? null : op === "<=" ? value <= goal : value >= goal;
  console.log(JSON.stringify({ ...figure, value: value === null ? null : Number(value.toPrecision(4)), holds }));
}

export const median = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;
export const percentile = (values: readonly number[], share: number): number =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? Number.NaN;

/** Both sides in turn, A B A B, so that a noisy machine treats them alike; the median of the ratios. */
export async function ratioOf(
  runs: number,
  a: () => number | Promise<number>,
  b: () => number | Promise<number>,
): Promise<number> {
  const ratios: number[] = [];
  for (let run = 0; run < runs; run++) {
    const one = await a();
    ratios.push(one / (await b()));
  }
  return median(ratios);
}
