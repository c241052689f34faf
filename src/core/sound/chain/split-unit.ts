import { type HeardChain, type HeardLane, type HeardNode, type HeardSplit, isSplit } from "../../chains/heard-chain";
import { hertz } from "../../units/quantities";
import { highPass, lowPass } from "../../dsp/biquad";
import { crossoverAllPass, twice } from "../../dsp/crossover";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GLIDE, GRID, type Ramp, aimRamp, createRamp, gridSteps, jumpRamp, stepRamp } from "../../dsp/grid";
import { slopeOf } from "../../processors/grid-kernel";
import { type PanMatrix, balanceMatrix, panMatrix } from "../../dsp/pan";
import { CHUNK, type KeyBus, LaneKeys, type ProcessorState, type Unit, Waiting } from "./unit";

/** What a lane needs of a series; the series makes splits, so it is handed over rather than imported. */
interface Series {
  readonly latency: number;
  readonly settling: number;
  fits(chain: HeardChain): boolean;
  take(chain: HeardChain): void;
  process(left: Float32Array, right: Float32Array, from: number, to: number): void;
  reset(): void;
  collect(states: ProcessorState[]): void;
}

interface Lane {
  readonly key: string;
  readonly series: Series;
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly gains: LaneGains;
  /** What makes it as late as the slowest of the lanes. */
  readonly waiting: Waiting;
  /** Band lanes only: what leads from the sound to the band. */
  readonly filters: readonly GlidingBiquads[];
}

const BUTTERWORTH = Math.SQRT1_2;

/** What of each side of a lane goes to each side. */
type LaneGains = Readonly<Record<keyof PanMatrix, Ramp>>;

const WAYS = ["leftToLeft", "leftToRight", "rightToLeft", "rightToRight"] as const;

/** A lane in the middle is as loud as it came, by both laws. */
const matrixOf = ({ pan, panLaw }: HeardLane): PanMatrix => (panLaw === "pan" ? panMatrix(pan) : balanceMatrix(pan));

const sizeOf = ({ enabled, gain }: HeardLane): number => (enabled ? gain : 0);

function gainsOf(lane: HeardLane): LaneGains {
  const [matrix, size] = [matrixOf(lane), sizeOf(lane)];
  const gain = (way: keyof PanMatrix): Ramp => createRamp(size * matrix[way]);
  return {
    leftToLeft: gain("leftToLeft"),
    leftToRight: gain("leftToRight"),
    rightToLeft: gain("rightToLeft"),
    rightToRight: gain("rightToRight"),
  };
}

/** A gain so many samples after a point of the grid. */
const at = (ramp: Ramp, within: number): number => ramp.value + slopeOf(ramp) * within;

const isSilent = ({ value, target }: Ramp): boolean => value === 0 && target === 0;

/**
 * Lanes side by side. By bands, the crossovers are Linkwitz-Riley filters of the fourth order in a row, and each lane
 * passes the all-passes of the crossovers that it does not meet: lanes that do nothing add up to a flat response.
 */
export class SplitUnit implements Unit {
  readonly latency: number;
  private readonly key: string;
  private readonly lanes: readonly Lane[];
  private readonly byBands: boolean;
  private readonly through: Waiting;
  private readonly glide: number;
  private readonly throughLeft = new Float32Array(CHUNK);
  private readonly throughRight = new Float32Array(CHUNK);
  /** 1 where the lanes are heard, 0 where the sound passes them by. */
  private readonly on: Ramp;
  private readonly sampleRate: number;
  private readonly keys: LaneKeys;
  private within = 0;

  constructor(
    split: HeardSplit,
    { sampleRate, keys }: { readonly sampleRate: number; readonly keys: KeyBus },
    createSeries: (chain: HeardChain, keys: KeyBus) => Series,
  ) {
    this.sampleRate = sampleRate;
    this.keys = new LaneKeys(keys);
    this.key = split.key;
    this.byBands = split.crossovers !== null;
    this.glide = gridSteps(GLIDE, sampleRate);
    this.on = createRamp(split.enabled ? 1 : 0);
    const serieses = split.lanes.map((lane) => createSeries(lane.nodes, this.keys));
    this.latency = Math.max(0, ...serieses.map((s) => s.latency));
    this.through = new Waiting(this.latency);
    this.lanes = split.lanes.map((lane, at) => ({
      key: lane.key,
      series: serieses[at]!,
      left: new Float32Array(CHUNK),
      right: new Float32Array(CHUNK),
      gains: gainsOf(lane),
      waiting: new Waiting(this.latency - serieses[at]!.latency),
      filters: (split.crossovers ?? []).map((_, crossover) => new GlidingBiquads(sectionsOf(at, crossover))),
    }));
    this.aimFilters(split, true);
  }

  get settling(): number {
    return Math.max(this.latency, ...this.lanes.map(({ series }) => series.settling));
  }

  fits(node: HeardNode): boolean {
    return (
      isSplit(node) &&
      node.key === this.key &&
      (node.crossovers !== null) === this.byBands &&
      node.lanes.length === this.lanes.length &&
      this.lanes.every((lane, at) => lane.key === node.lanes[at]!.key && lane.series.fits(node.lanes[at]!.nodes))
    );
  }

  take(node: HeardNode): void {
    if (!isSplit(node)) throw new Error(`${node.key} is no split`);
    aimRamp(this.on, node.enabled ? 1 : 0, this.glide);
    this.lanes.forEach((lane, at) => {
      const [matrix, size] = [matrixOf(node.lanes[at]!), sizeOf(node.lanes[at]!)];
      for (const way of WAYS) aimRamp(lane.gains[way], size * matrix[way], this.glide);
      lane.series.take(node.lanes[at]!.nodes);
    });
    this.aimFilters(node, false);
  }

  reset(): void {
    jumpRamp(this.on, this.on.target);
    this.through.clear();
    for (const { series, waiting, filters, gains } of this.lanes) {
      series.reset();
      waiting.clear();
      for (const way of WAYS) jumpRamp(gains[way], gains[way].target);
      for (const filter of filters) filter.clear();
    }
  }

  collect(states: ProcessorState[]): void {
    for (const { series } of this.lanes) series.collect(states);
  }

  process(left: Float32Array, right: Float32Array, from: number, to: number): void {
    let at = from;
    while (at < to) {
      const end = Math.min(to, at + GRID - this.within);
      this.segment(left, right, at, end);
      this.within += end - at;
      at = end;
      if (this.within === GRID) this.tick();
    }
  }

  private tick(): void {
    this.within = 0;
    stepRamp(this.on);
    for (let l = 0; l < this.lanes.length; l++) {
      const { gains, filters } = this.lanes[l]!;
      for (let w = 0; w < WAYS.length; w++) stepRamp(gains[WAYS[w]!]);
      for (let f = 0; f < filters.length; f++) filters[f]!.tick();
    }
  }

  private segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { throughLeft, throughRight, on } = this;
    const count = to - from;
    this.keys.begin(from);
    for (let i = 0; i < count; i++) {
      throughLeft[i] = left[from + i]!;
      throughRight[i] = right[from + i]!;
    }
    for (let l = 0; l < this.lanes.length; l++) this.run(this.lanes[l]!, count);
    this.through.pass(throughLeft, throughRight, 0, count);
    const slope = slopeOf(on);
    for (let i = 0; i < count; i++) {
      let sumLeft = 0;
      let sumRight = 0;
      for (let l = 0; l < this.lanes.length; l++) {
        sumLeft += this.lanes[l]!.left[i]!;
        sumRight += this.lanes[l]!.right[i]!;
      }
      const share = on.value + slope * (this.within + i);
      left[from + i] = share * sumLeft + (1 - share) * throughLeft[i]!;
      right[from + i] = share * sumRight + (1 - share) * throughRight[i]!;
    }
  }

  /** The lane's sound of this segment, levelled and panned, stands in its buffers afterwards. */
  private run(lane: Lane, count: number): void {
    const { left, right, filters, series, waiting, gains } = lane;
    for (let i = 0; i < count; i++) {
      left[i] = this.throughLeft[i]!;
      right[i] = this.throughRight[i]!;
    }
    for (let f = 0; f < filters.length; f++) {
      filters[f]!.process(0, left, count, this.within);
      filters[f]!.process(1, right, count, this.within);
    }
    series.process(left, right, 0, count);
    waiting.pass(left, right, 0, count);
    if (isSilent(gains.leftToRight) && isSilent(gains.rightToLeft)) this.scale(left, right, count, gains);
    else this.turn(left, right, count, gains);
  }

  /** Each side by itself. */
  private scale(left: Float32Array, right: Float32Array, count: number, gains: LaneGains): void {
    const { within } = this;
    const left0 = gains.leftToLeft.value;
    const leftSlope = slopeOf(gains.leftToLeft);
    const right0 = gains.rightToRight.value;
    const rightSlope = slopeOf(gains.rightToRight);
    for (let i = 0; i < count; i++) {
      left[i]! *= left0 + leftSlope * (within + i);
      right[i]! *= right0 + rightSlope * (within + i);
    }
  }

  /** One side goes over to the other. */
  private turn(left: Float32Array, right: Float32Array, count: number, gains: LaneGains): void {
    const { within } = this;
    const { leftToLeft, leftToRight, rightToLeft, rightToRight } = gains;
    for (let i = 0; i < count; i++) {
      const l = left[i]!;
      const r = right[i]!;
      left[i] = at(leftToLeft, within + i) * l + at(rightToLeft, within + i) * r;
      right[i] = at(leftToRight, within + i) * l + at(rightToRight, within + i) * r;
    }
  }

  private aimFilters(split: HeardSplit, jump: boolean): void {
    const { sampleRate, glide } = this;
    this.lanes.forEach((lane, at) =>
      lane.filters.forEach((filter, crossover) => {
        const design = { freq: hertz(split.crossovers?.[crossover] ?? 1000), q: BUTTERWORTH, sampleRate };
        const low = lowPass(design);
        if (crossover < at) filter.aim(twice(highPass(design)), glide, jump);
        else if (crossover === at) filter.aim(twice(low), glide, jump);
        else filter.aim([crossoverAllPass(low)], glide, jump);
      }),
    );
  }
}

/** Lane n is what lies above the crossovers before it and below its own; it evens out those behind with all-passes. */
const sectionsOf = (lane: number, crossover: number): number => (crossover <= lane ? 2 : 1);
