"use client";

import { ChevronDown } from "lucide-react";
import { type ReactNode, useState } from "react";
import { findStrip, type Project } from "@/core/projects/project";
import { choiceOf, choicesFor, takenBy } from "@/core/recall/choices";
import type { InsertMode } from "@/core/recall/plan-inserts";
import { type LayerTake, hasEffectsInside } from "@/core/recall/plan-layers";
import type { SendMode } from "@/core/recall/plan-sends";
import { asStrip } from "@/core/presets/as-strip";
import { isStrips } from "@/core/presets/preset";
import { withChoice } from "@/core/settings/settings";
import { PART } from "@/core/strips/parts";
import { Button } from "../kit/button";
import { Field, INPUT } from "../kit/field";
import { Menu } from "../kit/menu";
import { orSay } from "../kit/say";
import { ManySegments, Segments } from "../kit/segments";
import { Sheet } from "../kit/sheet";
import { useSettings } from "../settings/settings";
import type { Onto, usePlan } from "./use-plan";

const MODES: readonly { value: InsertMode; label: string }[] = [
  { value: "replace", label: "Replace" },
  { value: "before", label: "Before" },
  { value: "after", label: "After" },
  { value: "section", label: "One section" },
  { value: "values", label: "Values only" },
];

const SEND_MODES: readonly { value: SendMode; label: string }[] = [
  { value: "replace", label: "Replace" },
  { value: "add", label: "Add" },
  { value: "levels", label: "Levels only" },
];

const TAKES: readonly { value: LayerTake; label: string }[] = [
  { value: "whole", label: "Whole" },
  { value: "played", label: "Without effects inside" },
  { value: "effects", label: "Effects inside only" },
];

const ONTO: readonly { value: Onto; label: string }[] = [
  { value: "matched", label: "Strips like them" },
  { value: "new", label: "New strips" },
];

/** One choice with the word for it, which stay together where a line is full. */
const Choosing = ({ what, children }: { readonly what: string; readonly children: ReactNode }) => (
  <div className="flex items-center gap-2">
    <span className="text-small text-soft">{what}</span>
    {children}
  </div>
);

interface Props {
  readonly project: Project;
  readonly state: ReturnType<typeof usePlan>;
}

/** What of it is brought, and how. */
export function PlanHead({ project, state }: Props) {
  const { held, parts, mode, sources } = state;
  // What is put in may bring effects inside, and what is there may lose them; where no instrument can stand, there is nothing to choose.
  const met = state.strips.map((id) => findStrip(project, id));
  const takesLayers = held.includes("source") && (met.length === 0 || met.some((s) => s?.kind === "instrument"));
  const brought = (sources ?? []).map(({ content }) => asStrip(content));
  const choosesLayers = takesLayers && [...brought, ...met].some((s) => s?.source && hasEffectsInside(s.source));
  return (
    <div className="flex flex-none flex-wrap items-center gap-x-[18px] gap-y-2 px-4 pb-[10px]">
      <Choosing what="Parts">
        {held.length > 1 && <NamedChoices state={state} />}
        <ManySegments
          label="Parts"
          values={parts}
          onChange={(on) => state.setParts(held.filter((part) => on.includes(part)))}
          options={held.map((part) => ({ value: part, label: PART[part].title }))}
        />
      </Choosing>
      {sources?.some(({ content }) => isStrips(content)) && (
        <Choosing what="Onto">
          <Segments label="Onto" value={state.onto} onChange={state.setOnto} options={ONTO} />
        </Choosing>
      )}
      {held.includes("inserts") && (
        <Choosing what="Inserts">
          <Segments label="Inserts" value={mode} onChange={state.setMode} options={MODES} />
        </Choosing>
      )}
      {held.includes("sends") && (
        <Choosing what="Sends">
          <Segments label="Sends" value={state.sends} onChange={state.setSends} options={SEND_MODES} />
        </Choosing>
      )}
      {choosesLayers && (
        <Choosing what="Instrument">
          <Segments label="Instrument" value={state.layers} onChange={state.setLayers} options={TAKES} />
        </Choosing>
      )}
    </div>
  );
}

/** Choices of parts by their names: those that everybody has, and one's own. */
function NamedChoices({ state: { held, parts, setParts } }: Pick<Props, "state">) {
  const { settings, change } = useSettings();
  const [naming, setNaming] = useState(false);
  const choices = choicesFor(settings.choices, held);
  const now = choiceOf(choices, held, parts);
  const own = settings.choices.find(({ name }) => name === now?.name);
  return (
    <>
      <Menu
        trigger={
          <Button small aria-label={`Choice of parts: ${now?.name ?? "Some"}`}>
            {now?.name ?? "Some"}
            <ChevronDown size={14} aria-hidden="true" />
          </Button>
        }
        groups={[
          {
            id: "choices",
            items: choices.map((choice) => ({
              id: choice.name,
              label: choice.name,
              onChoose: () => setParts(takenBy(choice, held)),
            })),
          },
          {
            id: "own",
            items: [
              {
                id: "keep",
                label: "Keep this choice under a name…",
                disabled: now !== null || parts.length === 0,
                onChoose: () => setNaming(true),
              },
              ...(own
                ? [
                    {
                      id: "forget",
                      label: `Forget “${own.name}”`,
                      onChoose: () => orSay(change((settings) => withChoice(settings, own.name, []))),
                    },
                  ]
                : []),
            ],
          },
        ]}
      />
      {naming && (
        <ChoiceName
          onClose={() => setNaming(false)}
          onName={(name) => orSay(change((settings) => withChoice(settings, name, parts)))}
        />
      )}
    </>
  );
}

interface NameProps {
  readonly onClose: () => void;
  readonly onName: (name: string) => void;
}

function ChoiceName({ onClose, onName }: NameProps) {
  const [name, setName] = useState("");
  const keep = () => {
    if (name.trim() === "") return;
    onName(name.trim());
    onClose();
  };
  return (
    <Sheet open title="Keep this choice of parts" onClose={onClose} className="w-[420px]">
      <form
        className="grid gap-[14px]"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <div className="grid grid-cols-[56px_1fr] gap-x-3">
          <Field label="Name">
            <input
              value={name}
              maxLength={60}
              autoComplete="off"
              className={INPUT}
              onChange={(event) => setName(event.target.value)}
            />
          </Field>
        </div>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={name.trim() === ""}>
            Keep
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
