"use client";

import { useQueryClient } from "@tanstack/react-query";
import equal from "fast-deep-equal";
import { useForm } from "react-hook-form";
import * as api from "@/clients/api";
import type { KeepMixRequest } from "@/contracts/history";
import { MOST_NOTES } from "@/core/documents/limits";
import { withoutClashes } from "@/core/names/free";
import { type Mix, findMix, mixTitle, mixesOf } from "@/core/projects/mixes";
import type { Project } from "@/core/projects/project";
import { Button } from "../kit/button";
import { Field, INPUT, Refused } from "../kit/field";
import { mintKey } from "../kit/mint";
import { say } from "../kit/say";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { useProjectEditing } from "./editing";
import { send } from "./sending";

type Fields = Pick<Mix, "name" | "take" | "note">;

interface Props {
  readonly project: Project;
  /** The moment that is kept, by the change that it comes after; null for the project as it is once all is sent. */
  readonly at: number | null;
  /** One that is kept already, to be called otherwise. */
  readonly mix?: Mix;
  readonly onClose: () => void;
}

const MOST_NAME = { value: 200, message: "200 letters are the most." };
const MOST_TAKE = { value: 80, message: "80 letters are the most for a take." };

/** "Mix 3", as no other is called. */
const nextName = (project: Project): string =>
  withoutClashes(
    [`Mix ${mixesOf(project).length + 1}`],
    mixesOf(project).map(({ name }) => name),
  )[0]!;

/** The newest that was kept before a moment. */
const keptBefore = (project: Project, at: number, self: Mix | undefined): Mix | null =>
  mixesOf(project).findLast(({ n, id }) => n < at && id !== self?.id) ?? null;

/** A moment of a project is kept under a name, with its take and a note; or one that is kept gets others. */
export function MixSheet({ project, at, mix, onClose }: Props) {
  const queries = useQueryClient();
  const editing = useProjectEditing(project.id);
  const { refusal, busy, attempt } = useAttempt();
  const { register, handleSubmit, formState, setValue, getValues } = useForm<Fields>({
    defaultValues: mix ?? { name: nextName(project), take: "", note: "" },
  });
  const revision = mix?.n ?? at ?? editing.body?.revision ?? 0;
  const before = keptBefore(project, revision, mix);
  const write = () =>
    attempt(async () => {
      const { text } = await api.noteBetween(project.id, { from: before?.n ?? 0, to: revision });
      const own = getValues("note").trim();
      setValue("note", (own === "" ? text : `${own}\n\n${text}`).slice(0, MOST_NOTES), { shouldDirty: true });
    });
  const keep = handleSubmit((written) => {
    const said = { name: written.name.trim(), take: written.take.trim(), note: written.note.trim() };
    if (mix && equal({ ...mix, ...said }, mix)) return onClose();
    return attempt(async () => {
      const made = mix ? await change(editing, mix, said) : await keepNew(said);
      if (made === null) return;
      onClose();
      say(`${mix ? "Kept" : "Kept this mix"} as “${mixTitle(said)}”`, {
        action: { label: "Undo", onClick: () => void editing.undo(made) },
      });
    });
  });
  const keepNew = (said: Fields) =>
    send(queries, project.id, {
      call: (baseRevision) => api.keepMix(project.id, requestOf(said, baseRevision, at)),
      isShown: false,
    }).then((body) => body?.revision ?? null);
  return (
    <Sheet open onClose={onClose} title={mix ? "About this mix" : "Keep this mix"} className="w-[520px]">
      <form onSubmit={(event) => void keep(event)} className="grid grid-cols-[64px_1fr] items-center gap-x-3 gap-y-2">
        <Field label="Name">
          <input
            autoComplete="off"
            className={INPUT}
            onFocus={({ currentTarget }) => currentTarget.select()}
            {...register("name", { validate: (v) => v.trim() !== "" || "Give it a name.", maxLength: MOST_NAME })}
          />
        </Field>
        <Field label="Take">
          <input autoComplete="off" className={INPUT} {...register("take", { maxLength: MOST_TAKE })} />
        </Field>
        <Field label="Note">
          <textarea
            rows={6}
            maxLength={MOST_NOTES}
            className="w-full resize-y rounded-card border border-bound bg-ground px-[10px] py-2"
            {...register("note")}
          />
        </Field>
        {Object.values(formState.errors).map((error) => (
          <div key={error.message} className="col-span-2">
            <Refused>{error.message}</Refused>
          </div>
        ))}
        {refusal && <div className="col-span-2">{refusal}</div>}
        <div className="col-span-2 mt-2 flex justify-end gap-2">
          <Button className="mr-auto min-w-0" disabled={busy} onClick={() => void write()}>
            <span className="truncate">Write what was done since {before ? `“${before.name}”` : "its beginning"}</span>
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={busy}>
            Keep
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

const requestOf = (said: Fields, baseRevision: number, at: number | null): KeepMixRequest => ({
  baseRevision,
  ...(at === null ? {} : { revision: at }),
  ...said,
});

/** The revision that it made; null where nothing is otherwise, or it was refused. */
const change = (editing: ReturnType<typeof useProjectEditing>, mix: Mix, said: Fields): Promise<number | null> =>
  editing.commit(`The kept mix “${said.name}”`, (now) => {
    const from = findMix(now, mix.id);
    return from ? [{ id: mintKey(), kind: "setMix", mix: mix.id, from, to: { ...from, ...said } }] : [];
  });
