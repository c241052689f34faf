"use client";

import { useState } from "react";
import { counted } from "@/core/names/count";
import type { Project } from "@/core/projects/project";
import { type Relief, findRelief, reliefsOf } from "@/core/projects/reliefs";
import { putBack } from "@/core/relief/put-back";
import { Button } from "../kit/button";
import { formatMoment } from "../kit/dates";
import { mintKey } from "../kit/mint";
import { say } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { Sheet } from "../kit/sheet";
import type { ProjectEditing } from "../projects/editing";

interface Props {
  readonly project: Project;
  readonly editing: ProjectEditing;
  readonly onClose: () => void;
}

const wordsOf = ({ title, how, at }: Relief): string =>
  `${title}, ${how === "off" ? "switched off" : "taken out"} ${formatMoment(at)}`;

/** What was relieved, and what of it comes back where; what does not, with the reason. */
export function PutBackSheet({ project, editing, onClose }: Props) {
  const reliefs = reliefsOf(project).toReversed();
  const [chosen, choose] = useState<string | null>(null);
  const [isDone, setDone] = useState(false);
  const relief = reliefs.find(({ id }) => id === chosen) ?? reliefs[0] ?? null;
  const plan = relief && putBack(project, relief, mintKey);
  const doIt = async () => {
    if (!relief || !plan) return;
    setDone(true);
    const made = await editing.commit(`Put back ${counted(plan.back.length, "plugin")}: ${relief.title}`, (now) => {
      const there = findRelief(now, relief.id);
      return there ? putBack(now, there, mintKey).steps : [];
    });
    if (made === null) return setDone(false);
    onClose();
    say(`Put back: ${counted(plan.back.length, "plugin")}`, {
      action: { label: "Undo", onClick: () => void editing.undo(made) },
    });
  };
  if (!relief || !plan)
    return isDone ? null : (
      <Sheet open onClose={onClose} title="Put back" className="w-[640px]">
        <p className="text-soft">
          Nothing is relieved in this project. What is taken out or switched off by “Relieve plugins…” comes back from
          here.
        </p>
        <Button className="self-end" onClick={onClose}>
          Close
        </Button>
      </Sheet>
    );
  const letGo = () => {
    onClose();
    void editing.commit(`Let go of what was relieved: ${relief.title}`, (now) => {
      const from = findRelief(now, relief.id);
      return from ? [{ id: mintKey(), kind: "setRelief", relief: relief.id, from, to: null }] : [];
    });
  };
  return (
    <Sheet open onClose={onClose} title="Put back" className="w-[640px]">
      <form
        className="grid min-h-0 gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void doIt();
        }}
      >
        {reliefs.length > 1 ? (
          <select
            aria-label="What was relieved"
            className="h-8 rounded-card border border-bound bg-ground px-2"
            value={relief.id}
            onChange={({ target }) => choose(target.value)}
          >
            {reliefs.map((one) => (
              <option key={one.id} value={one.id}>
                {wordsOf(one)} ({one.plugins.length})
              </option>
            ))}
          </select>
        ) : (
          <p>{wordsOf(relief)}</p>
        )}
        <Scroll label="What comes back" className="max-h-[min(360px,44vh)] border-edge border-y">
          <ul>
            {plan.back.map(({ strip, layer, key, stripName, name }) => (
              <li
                key={[strip, layer, key].join(" ")}
                className="flex min-h-[30px] items-center gap-3 border-rule border-b"
              >
                <span className="name w-[200px] flex-none truncate">{stripName}</span>
                <span className="truncate">{name}</span>
              </li>
            ))}
            {plan.left.map(({ plugin: { strip, layer, key, stripName, name }, why }) => (
              <li
                key={[strip, layer, key].join(" ")}
                className="flex min-h-[30px] items-center gap-3 border-rule border-b text-soft"
              >
                <span className="name w-[200px] flex-none truncate">{stripName}</span>
                <span className="min-w-0 truncate">{name}</span>
                <span className="ml-auto flex-none text-edit">{why}</span>
              </li>
            ))}
          </ul>
        </Scroll>
        {plan.macrosLeft > 0 && (
          <p className="text-small text-edit">
            Macros that were changed since do not move again what they moved, on {counted(plan.macrosLeft, "chain")}.
          </p>
        )}
        <div className="flex items-center gap-2">
          <Button title="They stay as they are, and are remembered no longer" onClick={letGo}>
            Let go of them
          </Button>
          <span className="mr-auto text-soft">
            {plan.left.length > 0 && `${counted(plan.left.length, "plugin")} not put back`}
          </span>
          <Button onClick={onClose}>Cancel</Button>
          <Button main autoFocus type="submit" disabled={plan.back.length === 0}>
            Put back {counted(plan.back.length, "plugin")}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
