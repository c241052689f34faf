"use client";

import equal from "fast-deep-equal";
import { useForm, useWatch } from "react-hook-form";
import type { Project } from "@/core/projects/project";
import { DIGITS, type View, findView, freeDigit, viewsOf } from "@/core/projects/views";
import { withoutClashes } from "@/core/names/free";
import type { Step } from "@/core/recall/steps";
import { Button } from "../../kit/button";
import { Field, INPUT, Refused } from "../../kit/field";
import { mintKey } from "../../kit/mint";
import { say } from "../../kit/say";
import { Sheet } from "../../kit/sheet";
import type { ProjectEditing } from "../../projects/editing";
import type { Kept } from "./use-shown";

interface Props {
  readonly project: Project;
  readonly editing: ProjectEditing;
  /** What is shown. */
  readonly kept: Kept;
  /** One that is kept already, to be called otherwise, or by another key; what it shows stays. */
  readonly view?: View;
  /** By what it is called until somebody says otherwise. */
  readonly name: string;
  readonly onKept: (view: View) => void;
  readonly onClose: () => void;
}

interface Fields {
  readonly name: string;
  /** "" for none. */
  readonly digit: string;
}

/** The steps by which a view comes to stand, and takes its digit from the one that has it. */
export function keepSteps(now: Project, view: View): readonly Step[] {
  const set = (id: string, from: View | null, to: View | null): Step => ({
    id: mintKey(),
    kind: "setView",
    view: id,
    from,
    to,
  });
  const others = viewsOf(now).filter(({ id, digit }) => id !== view.id && digit !== null && digit === view.digit);
  const from = findView(now, view.id);
  if (equal(from, view)) return [];
  return [...others.map((other) => set(other.id, other, { ...other, digit: null })), set(view.id, from, view)];
}

/** What is shown is kept under a name and a digit; or one that is kept gets others. */
export function ViewSheet({ project, editing, kept, view, name, onKept, onClose }: Props) {
  const taken = viewsOf(project);
  const [free] = withoutClashes(
    [name],
    taken.map((other) => other.name),
  );
  const { register, handleSubmit, formState, control } = useForm<Fields>({
    defaultValues: view
      ? { name: view.name, digit: String(view.digit ?? "") }
      : { name: free!, digit: String(freeDigit(project) ?? "") },
  });
  const digit = useWatch({ control, name: "digit" });
  const owner = taken.find((other) => other.id !== view?.id && String(other.digit ?? "") === digit && digit !== "");
  const keep = handleSubmit(async (written) => {
    const made: View = {
      ...(view ?? { ...kept, id: mintKey() }),
      name: written.name.trim(),
      digit: written.digit === "" ? null : Number(written.digit),
    };
    const label = view ? `The view “${made.name}”` : `Keep the view “${made.name}”`;
    onClose();
    // At once: what is pressed while it is on its way comes after it.
    onKept(made);
    const revision = await editing.commit(label, (now) => keepSteps(now, made));
    if (revision === null) return;
    say(`Kept the view “${made.name}”`, {
      action: { label: "Undo", onClick: () => void editing.undo(revision) },
    });
  });
  return (
    <Sheet open onClose={onClose} title={view ? "Name and key of the view" : "Keep this view"} className="w-[440px]">
      <form onSubmit={(event) => void keep(event)} className="grid grid-cols-[64px_1fr] items-center gap-x-3 gap-y-2">
        <Field label="Name">
          <input
            autoComplete="off"
            className={INPUT}
            onFocus={({ currentTarget }) => currentTarget.select()}
            {...register("name", {
              validate: (v) => v.trim() !== "" || "Give it a name.",
              maxLength: { value: 200, message: "200 letters are the most." },
            })}
          />
        </Field>
        <Field label="Key">
          <select className={INPUT} {...register("digit")}>
            <option value="">None</option>
            {DIGITS.map((one) => (
              <option key={one} value={one}>
                {one}
              </option>
            ))}
          </select>
        </Field>
        {owner && (
          <p className="col-span-2 text-edit">
            {digit} is the key of “{owner.name}”, which has none then.
          </p>
        )}
        <p className="col-span-2 text-soft">
          Strips and columns as they are shown now. It changes nothing that is heard.
        </p>
        {formState.errors.name && (
          <div className="col-span-2">
            <Refused>{formState.errors.name.message}</Refused>
          </div>
        )}
        <div className="col-span-2 mt-2 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit">
            Keep
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
