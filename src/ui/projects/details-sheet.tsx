"use client";

import equal from "fast-deep-equal";
import { useForm } from "react-hook-form";
import { DETAILS, type Details } from "@/core/projects/details";
import type { Project } from "@/core/projects/project";
import type { Step } from "@/core/recall/steps";
import { Button } from "../kit/button";
import { Field, INPUT, Refused } from "../kit/field";
import { mintKey } from "../kit/mint";
import { say } from "../kit/say";
import { Sheet } from "../kit/sheet";
import type { ProjectEditing } from "./editing";

interface Fields extends Omit<Details, "meter"> {
  readonly beats: number;
  readonly unit: string;
}

const MOST = { value: 200, message: "200 letters are the most." };

/** The steps from what is said of a project to what is filled in. */
const stepsTo = (project: Project, to: Details): readonly Step[] =>
  DETAILS.flatMap((detail) =>
    equal(project[detail], to[detail])
      ? []
      : [{ id: mintKey(), kind: "setDetail", detail, from: project[detail], to: to[detail] } as Step],
  );

/** Says it of the project; where it was said, it can be taken back at once. */
async function tell(editing: ProjectEditing, { name }: Project, to: Details): Promise<void> {
  const made = await editing.commit("What is said of the project", (now) => stepsTo(now, to));
  if (made === null) return;
  say(to.name === name ? `Changed what is said of “${name}”` : `“${name}” is called “${to.name}”`, {
    action: { label: "Undo", onClick: () => void editing.undo(made) },
  });
}

interface Props {
  readonly project: Project;
  readonly editing: ProjectEditing;
  readonly onClose: () => void;
  /** To keep it as one to begin others from; not offered where it is not there. */
  readonly onStarter?: () => void;
}

/** What is said of the project as a whole. */
export function DetailsSheet({ project, editing, onClose, onStarter }: Props) {
  const { name, artist, client, song, tempo, key, meter } = project;
  const { register, handleSubmit, formState } = useForm<Fields>({
    defaultValues: { name, artist, client, song, tempo, key, beats: meter.beats, unit: String(meter.unit) },
  });
  const keep = handleSubmit(({ beats, unit, ...said }) => {
    const words = Object.fromEntries(
      Object.entries(said).map(([field, value]) => [field, typeof value === "string" ? value.trim() : value]),
    ) as Omit<Details, "meter">;
    const to = { ...words, meter: { beats, unit: Number(unit) } } as Details;
    void tell(editing, project, to);
    onClose();
  });
  return (
    <Sheet open onClose={onClose} title="About this project" className="w-[480px]">
      <form onSubmit={(event) => void keep(event)} className="grid grid-cols-[84px_1fr] items-center gap-x-3 gap-y-2">
        <Field label="Name">
          <input
            autoComplete="off"
            className={INPUT}
            {...register("name", { validate: (v) => v.trim() !== "" || "Give it a name.", maxLength: MOST })}
          />
        </Field>
        <Field label="Song">
          <input autoComplete="off" className={INPUT} {...register("song", { maxLength: MOST })} />
        </Field>
        <Field label="Artist">
          <input autoComplete="off" className={INPUT} {...register("artist", { maxLength: MOST })} />
        </Field>
        <Field label="Client">
          <input autoComplete="off" className={INPUT} {...register("client", { maxLength: MOST })} />
        </Field>
        <Field label="Tempo, bpm">
          <input
            type="number"
            step="any"
            className={`${INPUT} num`}
            {...register("tempo", {
              valueAsNumber: true,
              validate: (v) => (v >= 20 && v <= 400) || "The tempo goes from 20 to 400 bpm.",
            })}
          />
        </Field>
        <span className="text-soft">Meter</span>
        <span className="flex items-center gap-2">
          <input
            type="number"
            aria-label="Beats in a bar"
            className={`${INPUT} num`}
            {...register("beats", {
              valueAsNumber: true,
              validate: (v) => (Number.isInteger(v) && v >= 1 && v <= 32) || "A bar has 1 to 32 beats.",
            })}
          />
          <span className="text-soft">/</span>
          <select aria-label="Note of a beat" className={INPUT} {...register("unit")}>
            {["2", "4", "8", "16"].map((unit) => (
              <option key={unit}>{unit}</option>
            ))}
          </select>
        </span>
        <Field label="Key">
          <input autoComplete="off" placeholder="D minor" className={INPUT} {...register("key", { maxLength: MOST })} />
        </Field>
        {Object.values(formState.errors).map((error) => (
          <div key={error.message} className="col-span-2">
            <Refused>{error.message}</Refused>
          </div>
        ))}
        <div className="col-span-2 mt-2 flex justify-end gap-2">
          {onStarter && (
            <Button className="mr-auto" onClick={onStarter}>
              Keep as a starter…
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit">
            Keep
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
