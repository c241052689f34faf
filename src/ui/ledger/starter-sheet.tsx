"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { depthOf, ledgerOrder } from "@/core/projects/nesting";
import type { Project } from "@/core/projects/project";
import { CLEANED, cleanedDown } from "@/core/recall/arrange";
import { PART } from "@/core/strips/parts";
import { stripName } from "@/core/strips/strip";
import { Button } from "../kit/button";
import { StripMark } from "../kit/card-mark";
import { Field, INPUT } from "../kit/field";
import { mintKey } from "../kit/mint";
import { say } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { ManySegments } from "../kit/segments";
import { Sheet } from "../kit/sheet";
import { Tick } from "../kit/tick";
import { useAttempt } from "../kit/use-attempt";

interface Props {
  readonly project: Project;
  readonly onClose: () => void;
}

/** A project cleaned down to what others are to begin with, kept beside it; the project itself stays as it is. */
export function StarterSheet({ project, onClose }: Props) {
  const queries = useQueryClient();
  const { refusal, attempt } = useAttempt();
  const [name, setName] = useState(`${project.name}, starter`);
  const [parts, setParts] = useState(CLEANED);
  const [out, setOut] = useState<ReadonlySet<string>>(new Set());
  const strips = ledgerOrder(project);
  const kept = strips.filter(({ id, kind }) => kind === "main" || !out.has(id));
  const keep = () =>
    attempt(async () => {
      const cleaned = cleanedDown(project, { strips: kept.map(({ id }) => id), parts }, mintKey);
      if (!cleaned.ok) throw new api.InWords(cleaned.error);
      const { id: _, schema: __, reliefs: ___, mixes: ____, ...rest } = cleaned.value;
      await api.makeProject({ ...rest, name: name.trim(), starter: true });
      await queries.invalidateQueries({ queryKey: KEYS.projects });
      onClose();
      say(`Kept “${name.trim()}” to begin projects from; ${project.name} stays as it is`);
    });
  return (
    <Sheet open onClose={onClose} title="Keep as a project starter" className="w-[560px]">
      <form
        className="grid gap-[14px]"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== "") void keep();
        }}
      >
        <div className="grid grid-cols-[84px_1fr] items-center gap-x-3 gap-y-2">
          <Field label="Name">
            <input
              value={name}
              maxLength={200}
              autoComplete="off"
              className={INPUT}
              onChange={(event) => setName(event.target.value)}
            />
          </Field>
          <span className="text-soft">What stays</span>
          <ManySegments
            label="Parts that stay"
            values={parts}
            onChange={(on) => setParts(CLEANED.filter((part) => on.includes(part)))}
            options={CLEANED.map((part) => ({ value: part, label: PART[part].title }))}
          />
        </div>
        <Scroll label="Strips that stay" className="max-h-[300px] border-edge border-y">
          <ul>
            {strips.map((strip) => (
              <li
                key={strip.id}
                className="flex min-h-[30px] items-center gap-2 border-rule border-b"
                style={{ paddingLeft: depthOf(project, strip) * 14 }}
              >
                {strip.kind === "main" ? (
                  <span className="w-[15px]" />
                ) : (
                  <Tick
                    label={stripName(strip)}
                    on={!out.has(strip.id)}
                    onChange={(on) =>
                      setOut(new Set(on ? [...out].filter((id) => id !== strip.id) : [...out, strip.id]))
                    }
                  />
                )}
                <StripMark kind={strip.kind} icon={strip.look.icon} colour={strip.look.colour} />
                <span className={`name truncate ${out.has(strip.id) ? "text-soft line-through" : ""}`}>
                  {stripName(strip)}
                </span>
              </li>
            ))}
          </ul>
        </Scroll>
        <p className="text-small text-soft">
          Names, groups and outputs stay; artist, client and song are forgotten. What led to a strip that goes leads to
          where that went.
        </p>
        {refusal}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={name.trim() === ""}>
            Keep {kept.length} {kept.length === 1 ? "strip" : "strips"}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
