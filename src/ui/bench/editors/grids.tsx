import { type Box, FREQUENCY_LINES, frequencyX, gainY, lineOf } from "@/core/plots/axes";
import { EQ_RANGE } from "@/core/plots/equaliser";
import { DECAY_LINES, decayY } from "@/core/plots/reverb";

interface Props {
  readonly box: Box;
}

/** Decades of frequency, with their figures. */
function FrequencyLines({ box }: Props) {
  return FREQUENCY_LINES.map((hz) => (
    <g key={hz}>
      <path className="axis" d={lineOf([frequencyX(hz, box), 0], [frequencyX(hz, box), box.height])} />
      <text x={frequencyX(hz, box) + 4} y={box.height - 6} className="num-small" fill="var(--faint)">
        {hz >= 1000 ? `${hz / 1000}k` : hz}
      </text>
    </g>
  ));
}

/** Frequency and dB, as far as ± `range`. */
export function ResponseGrid({ box, range = EQ_RANGE }: Props & { readonly range?: number }) {
  const step = range > EQ_RANGE ? 12 : 6;
  return (
    <g>
      <FrequencyLines box={box} />
      {[2, 1, 0, -1, -2].map((steps) => {
        const dB = steps * step;
        const y = gainY(dB, range, box);
        return (
          <g key={dB}>
            <path
              className="axis"
              d={lineOf([0, y], [box.width, y])}
              style={dB === 0 ? { stroke: "var(--edge)" } : {}}
            />
            <text x={6} y={y - 4} className="num-small" fill="var(--faint)">
              {dB > 0 ? `+${dB}` : dB < 0 ? `−${-dB}` : "0 dB"}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Frequency and seconds. */
export function DecayGrid({ box }: Props) {
  return (
    <g>
      <FrequencyLines box={box} />
      {DECAY_LINES.map((seconds) => {
        const y = decayY(seconds, box);
        return (
          <g key={seconds}>
            <path
              className="axis"
              d={lineOf([0, y], [box.width, y])}
              style={seconds === 1 ? { stroke: "var(--edge)" } : {}}
            />
            <text x={6} y={y - 4} className="num-small" fill="var(--faint)">
              {seconds} s
            </text>
          </g>
        );
      })}
    </g>
  );
}
