"use client";

import { getSpec } from "@/core/processors/model";
import { type ParamId, type ParamSpec, valueIn } from "@/core/units/param-spec";
import { isNoteLength, nearestNote } from "@/core/units/note-length";
import { beatsPerMinute } from "@/core/units/quantities";
import { Segments } from "../../kit/segments";
import { Toggle } from "../../kit/toggle";
import { LineLabel, ValueLine, round } from "../../kit/value-line";
import { type EditorProps, heardOf, lineOf } from "./editor";

interface Props {
  readonly editor: EditorProps;
  readonly id: ParamId;
  readonly label?: string;
  /** In a narrow column: words that do not fit beside each other stand in a list. */
  readonly narrow?: boolean;
}

const ROW = "grid min-h-[30px] py-[2px] grid-cols-[minmax(72px,92px)_1fr] items-center gap-[10px]";
/** More letters than this do not stand side by side. */
const ROOM = 34;
const NARROW_ROOM = 18;

const isSwitch = ({ choices }: ParamSpec): boolean =>
  choices?.length === 2 && choices[0]?.label === "Off" && choices[1]?.label === "On";

/** One parameter, as its kind asks: a value line, a switch, a few words side by side, or a list. */
export function ControlLine({ editor, id, label, narrow = false }: Props) {
  const { model, processor, onTurn } = editor;
  const spec = getSpec(model, id);
  const name = label ?? spec.name;
  const value = valueIn(processor.values, spec);
  const movedBy = editor.movedBy(id);
  if (isSwitch(spec))
    return (
      <div className={ROW}>
        <LineLabel name={name} movedBy={movedBy} />
        <span className="text-small">
          <Toggle
            label={value === 1 ? "On" : "Off"}
            name={spec.name}
            on={value === 1}
            onChange={(on) => onTurn({ [id]: on ? 1 : 0 })}
          />
        </span>
      </div>
    );
  if (spec.choices && typeof value === "number") {
    const letters = spec.choices.reduce((sum, choice) => sum + choice.label.length + 2, 0);
    return (
      <div className={ROW}>
        <LineLabel name={name} movedBy={movedBy} />
        {letters <= (narrow ? NARROW_ROOM : ROOM) ? (
          <Segments
            small
            label={spec.name}
            value={String(value)}
            onChange={(next) => onTurn({ [id]: Number(next) })}
            options={spec.choices.map((choice) => ({ value: String(choice.value), label: choice.label }))}
          />
        ) : (
          <select
            aria-label={spec.name}
            value={String(value)}
            onChange={(event) => onTurn({ [id]: Number(event.target.value) })}
            className="h-6 w-fit rounded-card border border-edge bg-card px-1"
          >
            {spec.choices.map((choice) => (
              <option key={choice.value} value={choice.value}>
                {choice.label}
              </option>
            ))}
          </select>
        )}
      </div>
    );
  }
  return <ValueLine {...lineOf(editor, id)} label={name} />;
}

/** Whether a value follows the tempo or keeps its own number. */
export function FollowsTempo({ editor, id }: Props) {
  const { model, processor, tempo, onTurn } = editor;
  const spec = getSpec(model, id);
  const value = valueIn(processor.values, spec);
  const heard = heardOf(model, processor, tempo)[id] ?? 1;
  const note = () => nearestNote(spec.unit === "Hz" ? 1000 / heard : heard, beatsPerMinute(tempo));
  return (
    <Segments
      small
      label={`${spec.name} follows`}
      value={isNoteLength(value) ? "notes" : "own"}
      onChange={(way) => onTurn({ [id]: way === "notes" ? note() : round(heard) })}
      options={[
        { value: "notes", label: "Follows the tempo" },
        { value: "own", label: spec.unit === "Hz" ? "Hertz" : "Milliseconds" },
      ]}
    />
  );
}

interface GroupsProps {
  readonly editor: EditorProps;
  /** Shown elsewhere in the editor. */
  readonly without?: readonly ParamId[];
  readonly columns?: 1 | 2 | 3;
}

/** What a parameter is called beneath the heading of its group. */
function labelWithin({ name, group }: ParamSpec): string {
  if (group === undefined || !name.startsWith(`${group} `)) return name;
  const rest = name.slice(group.length + 1);
  return rest.length > 1 ? rest[0]!.toUpperCase() + rest.slice(1) : rest;
}

/** At most so many beside each other, and fewer where a label, a ruler and a number do not fit. */
const COLUMNS = {
  1: "grid-cols-1",
  2: "grid-cols-[repeat(auto-fit,minmax(max(250px,calc((100%-20px)/2)),1fr))]",
  3: "grid-cols-[repeat(auto-fit,minmax(max(250px,calc((100%-40px)/3)),1fr))]",
} as const;

/** All the parameters of a model beneath the headings of their groups; those without one stand under "Whole plugin". */
export function ControlGroups({ editor, without = [], columns = 2 }: GroupsProps) {
  const specs = editor.model.params.filter((spec) => !without.includes(spec.id));
  const groups = [...new Set(specs.map((spec) => spec.group))];
  if (groups.length === 1 && columns > 1)
    return (
      <div
        className={`grid grid-flow-col gap-x-5 ${COLUMNS[columns]}`}
        style={{ gridTemplateRows: `repeat(${Math.ceil(specs.length / columns)}, auto)` }}
      >
        {specs.map((spec) => (
          <ControlLine key={spec.id} editor={editor} id={spec.id} />
        ))}
      </div>
    );
  return (
    <div className={`grid gap-x-5 gap-y-2 ${COLUMNS[columns]}`}>
      {groups.map((group) => (
        <section key={group ?? ""} aria-label={group ?? "Whole plugin"}>
          {groups.length > 1 && <h2 className="h2 pb-1">{group ?? "Whole plugin"}</h2>}
          {specs
            .filter((spec) => spec.group === group)
            .map((spec) => (
              <ControlLine
                key={spec.id}
                editor={editor}
                id={spec.id}
                label={labelWithin(spec)}
                narrow={columns === 3}
              />
            ))}
        </section>
      ))}
    </div>
  );
}
