"use client";

import { useState } from "react";
import { counted } from "@/core/names/count";
import type { Project } from "@/core/projects/project";
import { RESET_PARTS, resetStrips } from "@/core/relief/reset";
import { PART, type PartName } from "@/core/strips/parts";
import { type Strip, stripName } from "@/core/strips/strip";
import { sentenceOf } from "@/core/recall/sentences";
import { Button } from "../kit/button";
import { mintKey } from "../kit/mint";
import { say } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { ManySegments, Segments } from "../kit/segments";
import { OnStrips, type Where } from "./on-strips";
import { Sheet } from "../kit/sheet";
import type { ProjectEditing } from "../projects/editing";

interface Props {
  readonly project: Project;
  readonly editing: ProjectEditing;
  readonly chosen: readonly string[];
  readonly onClose: () => void;
}

/** Steps that are told one by one. */
const MOST_TOLD = 60;

const on = (strips: readonly Strip[]): string =>
  strips.length === 1 ? stripName(strips[0]!) : counted(strips.length, "strip");

/** Strips, or some parts of them, back to how they are on new ones; what that changes is said before. */
export function ResetSheet({ project, editing, chosen, onClose }: Props) {
  const [where, setWhere] = useState<Where>(chosen.length > 0 ? "chosen" : "all");
  const [parts, setParts] = useState<readonly PartName[]>(RESET_PARTS);
  const [sendsOut, setSendsOut] = useState(true);
  const stripsOf = (now: Project) =>
    now.strips.filter(({ id, kind }) => kind !== "folder" && (where === "all" || chosen.includes(id)));
  const strips = stripsOf(project);
  const steps = resetStrips(strips, { parts, sendsOut }, mintKey);
  const titles = parts.length === RESET_PARTS.length ? "" : `: ${parts.map((part) => PART[part].title).join(", ")}`;
  const doIt = async () => {
    const made = await editing.commit(`Back to empty, ${on(strips)}${titles}`, (now) =>
      resetStrips(stripsOf(now), { parts, sendsOut }, mintKey),
    );
    if (made === null) return;
    onClose();
    say(`Back to empty: ${on(strips)}`, { action: { label: "Undo", onClick: () => void editing.undo(made) } });
  };
  return (
    <Sheet open onClose={onClose} title="Back to empty" className="w-[700px]">
      <form
        className="grid min-h-0 gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (steps.length > 0) void doIt();
        }}
      >
        <div className="grid grid-cols-[64px_1fr] items-center gap-x-3 gap-y-2">
          <span className="text-soft">On</span>
          <OnStrips chosen={chosen.length} value={where} onChange={setWhere} />
          <span className="text-soft">What</span>
          <ManySegments
            label="Parts"
            values={parts}
            onChange={(next) => setParts(RESET_PARTS.filter((part) => next.includes(part)))}
            options={RESET_PARTS.map((part) => ({ value: part, label: PART[part].title }))}
          />
          <span className="text-soft">Sends</span>
          <Segments
            label="Sends"
            value={sendsOut ? "out" : "off"}
            onChange={(how) => setSendsOut(how === "out")}
            options={[
              { value: "out", label: "Taken out", disabled: !parts.includes("sends") },
              { value: "off", label: "Switched off", disabled: !parts.includes("sends") },
            ]}
          />
        </div>
        <Scroll label="What changes" className="max-h-[min(300px,36vh)] border-edge border-y">
          <ul>
            {steps.slice(0, MOST_TOLD).map((step) => (
              <li key={step.id} className="truncate border-rule border-b py-[5px]">
                {sentenceOf(step, project)}
              </li>
            ))}
            {steps.length === 0 && <li className="py-[5px] text-soft">All of that is as on a new strip already.</li>}
            {steps.length > MOST_TOLD && (
              <li className="py-[5px] text-soft">and {counted(steps.length - MOST_TOLD, "change")} more</li>
            )}
          </ul>
        </Scroll>
        <div className="flex items-center justify-end gap-2">
          <span className="mr-auto text-soft">{counted(steps.length, "change")}</span>
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={steps.length === 0}>
            Back to empty
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
