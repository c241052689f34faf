import type { Processor } from "@/core/chains/chain";
import { type Model, getSpec, heardValues } from "@/core/processors/model";
import { type HeardValues, type ParamId, type Value, valueIn } from "@/core/units/param-spec";

import { beatsPerMinute } from "@/core/units/quantities";

/** What every editor is given: one processor, how it was saved, and what to call while and when a value is changed. */
export interface EditorProps {
  readonly model: Model;
  readonly processor: Processor;
  readonly saved: Processor | null;
  readonly tempo: number;
  /** A value was taken hold of; true where that was for a macro that learns. */
  readonly onTouch: (param: ParamId) => boolean;
  /** Names of the macros that move a value. */
  readonly movedBy: (param: ParamId) => readonly string[];
  readonly onPreview: (values: Readonly<Record<ParamId, Value>>) => void;
  readonly onTurn: (values: Readonly<Record<ParamId, Value>>) => void;
}

export const heardOf = (model: Model, { values }: Processor, tempo: number): HeardValues =>
  heardValues(model, values, beatsPerMinute(tempo));

/** The props of the value line of one parameter. */
export function lineOf(editor: EditorProps, id: ParamId) {
  const { model, processor, saved, tempo, onTouch, onPreview, onTurn } = editor;
  const spec = getSpec(model, id);
  return {
    spec,
    value: valueIn(processor.values, spec),
    saved: saved?.values[id],
    tempo,
    movedBy: editor.movedBy(id),
    onTouch: () => onTouch(id),
    onChange: (value: Value) => onPreview({ [id]: value }),
    onChangeEnd: (value: Value) => onTurn({ [id]: value }),
  };
}
