import { memo } from "react";
import { type Processor, processorName } from "@/core/chains/chain";
import { heardValues } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import { drawShape } from "@/core/plots/plot";
import { beatsPerMinute } from "@/core/units/quantities";
import { cx } from "./class-names";

interface Props {
  readonly processor: Processor;
  /** As it was: drawn behind it, in outline. */
  readonly before?: Processor | undefined;
  readonly tempo: number;
  readonly width?: number;
  readonly height?: number;
  readonly className?: string;
}

/** A processor's own picture, struck through when it is off. Its name stands beside it, or in its title. */
export const Shape = memo(function Shape({ processor, before, tempo, width = 56, height = 28, className }: Props) {
  const box = { width: width - 2, height: height - 2 };
  const marksOf = ({ model: id, values }: Processor) => {
    const model = findModel(id);
    return model ? drawShape(model, heardValues(model, values, beatsPerMinute(tempo)), box) : [];
  };
  const marks = marksOf(processor);
  const name = `${processorName(processor)}${processor.enabled ? "" : ", off"}`;
  return (
    <span
      title={name}
      data-tile={processor.key}
      className={cx("block flex-none rounded-[2px] border border-rule bg-card", className)}
      style={{ width, height }}
    >
      <svg
        className="plot"
        width={box.width}
        height={box.height}
        viewBox={`0 0 ${box.width} ${box.height}`}
        aria-hidden="true"
      >
        {before && (
          <g fill="none" stroke="var(--ghost)" strokeWidth={1} strokeDasharray="3 2">
            {marksOf(before).map((mark) => mark.kind === "line" && <path key={mark.kind} d={mark.path} />)}
          </g>
        )}
        <g opacity={processor.enabled ? 1 : 0.5}>
          {marks.map((mark) => (
            <path key={mark.kind} className={mark.kind} d={mark.path} />
          ))}
        </g>
        {!processor.enabled && <path className="slash" d={`M0 ${box.height}L${box.width} 0`} />}
      </svg>
    </span>
  );
});

interface ShapesProps {
  readonly processors: readonly Processor[];
  readonly tempo: number;
  readonly most?: number;
  readonly width?: number;
}

/** Shapes in a row; what does not fit is counted. For a screen reader it is the list of names. */
export function Shapes({ processors, tempo, most = 4, width = 56 }: ShapesProps) {
  const more = processors.length - most;
  const names = processors.map((p) => `${processorName(p)}${p.enabled ? "" : " off"}`).join(", ");
  return (
    <span className="flex items-center gap-[3px]">
      <span className="sr-only">{names}</span>
      {processors.slice(0, most).map((processor) => (
        <Shape key={processor.key} processor={processor} tempo={tempo} width={width} />
      ))}
      {more > 0 && <span className="num-small pl-[3px] text-soft">+{more}</span>}
    </span>
  );
}
