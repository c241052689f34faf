"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import type { ChangeEvent } from "react";
import { useForm } from "react-hook-form";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectRow } from "@/contracts/records";
import type { Project } from "@/core/projects/project";
import { errorText } from "../kit/error-text";
import { Button } from "../kit/button";
import { Field, INPUT, Refused } from "../kit/field";
import { Sheet } from "../kit/sheet";
import { useNewStrip } from "../settings/starts";

interface Fields {
  /** A starter, or a project that is copied; "" for a blank one. */
  readonly from: string;
  readonly name: string;
  readonly artist: string;
  readonly tempo: number;
}

const SHORT = { value: 200, message: "200 letters are the most." };

/** What a project begins with that its name, artist and tempo do not say. */
type Beginning = Pick<Project, "meter" | "key" | "sampleRate" | "strips" | "reliefs" | "views">;

const beginningOf = ({ meter, key, sampleRate, strips, reliefs, views }: Project): Beginning => ({
  meter,
  key,
  sampleRate,
  strips,
  // What was relieved there can be put back here too.
  ...(reliefs ? { reliefs } : {}),
  ...(views ? { views } : {}),
});

function useBeginning(moment: Moment | null): (from: string) => Promise<Beginning> {
  const newStrip = useNewStrip();
  return async (from) => {
    if (moment) return beginningOf((await api.getRevision(moment.project.id, moment.revision)).project);
    if (from !== "") return beginningOf((await api.getProject(from)).project);
    const main = await newStrip("main", "Main", { hardware: "Out 1–2" });
    return { meter: { beats: 4, unit: 4 }, key: "", sampleRate: 48_000, strips: [main] };
  };
}

/** A project as it was after one of its changes, and how that moment is called. */
interface Moment {
  readonly project: Project;
  readonly revision: number;
  readonly title: string;
}

interface Props {
  readonly projects: readonly ProjectRow[];
  /** What it begins as, in place of all that could be chosen. */
  readonly moment?: Moment;
  readonly onClose: () => void;
}

/** A blank project, with its main output and nothing that was not asked for; or one from a starter, or as a copy. */
export function NewProject({ projects, moment, onClose }: Props) {
  const router = useRouter();
  const queries = useQueryClient();
  const begin = useBeginning(moment ?? null);
  const { register, handleSubmit, formState, setError, setValue } = useForm<Fields>({
    defaultValues: { from: "", name: "", artist: moment?.project.artist ?? "", tempo: moment?.project.tempo ?? 120 },
  });
  const starters = projects.filter(({ starter }) => starter);
  const others = projects.filter(({ starter }) => !starter);
  /** What is not filled in yet is as in the project that it begins from. */
  const takeUp = (id: string) => {
    const from = projects.find((project) => project.id === id);
    if (!from) return;
    if (!formState.dirtyFields.tempo) setValue("tempo", from.tempo);
    if (!formState.dirtyFields.artist) setValue("artist", from.artist);
  };
  const make = handleSubmit(async ({ from, name, artist, tempo }) => {
    try {
      const words = { name: name.trim(), artist: artist.trim(), client: artist.trim(), song: name.trim() };
      const body = await api.makeProject({ ...(await begin(from)), ...words, tempo });
      await queries.invalidateQueries({ queryKey: KEYS.projects });
      router.push(`/projects/${body.project.id}`);
    } catch (error) {
      setError("root", { message: errorText(error) });
    }
  });
  return (
    <Sheet open onClose={onClose} title="New project" className="w-[480px]">
      <form onSubmit={(event) => void make(event)} className="grid grid-cols-[84px_1fr] items-center gap-x-3 gap-y-2">
        <Field label="Song">
          <input
            autoComplete="off"
            className={INPUT}
            {...register("name", { validate: (v) => v.trim() !== "" || "Give it a name.", maxLength: SHORT })}
          />
        </Field>
        <Field label="Artist">
          <input autoComplete="off" className={INPUT} {...register("artist", { maxLength: SHORT })} />
        </Field>
        <Field label="Tempo">
          <input
            type="number"
            step="any"
            className={`${INPUT} num w-28`}
            {...register("tempo", {
              valueAsNumber: true,
              validate: (v) => (v >= 20 && v <= 400) || "The tempo goes from 20 to 400 bpm.",
            })}
          />
        </Field>
        {moment && (
          <Field label="Begin">
            <span className="truncate" title={moment.title}>
              As “{moment.title}” of {moment.project.name}
            </span>
          </Field>
        )}
        {projects.length > 0 && (
          <Field label="Begin">
            <select
              className={INPUT}
              {...register("from", { onChange: (event: ChangeEvent<HTMLSelectElement>) => takeUp(event.target.value) })}
            >
              <option value="">Blank, with a main output</option>
              <Beginnings label="From a starter" projects={starters} />
              <Beginnings label="As a copy of" projects={others} />
            </select>
          </Field>
        )}
        {Object.values(formState.errors).map((error) => (
          <div key={error.message} className="col-span-2">
            <Refused>{error.message}</Refused>
          </div>
        ))}
        <div className="col-span-2 mt-2 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={formState.isSubmitting}>
            Make project
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

const Beginnings = ({ label, projects }: { readonly label: string; readonly projects: readonly ProjectRow[] }) =>
  projects.length === 0 ? null : (
    <optgroup label={label}>
      {projects.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </optgroup>
  );
