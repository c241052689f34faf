"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useEffectEvent, useLayoutEffect, useRef } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { KIND_NAMES } from "@/core/presets/preset";
import { type Action, showKey, useEnabledActions } from "../actions/actions";
import { Key } from "../kit/bits";
import { useOpenSound } from "../library/open-sound";
import { useRecall } from "../plan/recall";
import { chooseStrips, useInHand } from "../projects/in-hand";
import { useOpenProject } from "../projects/open-project";
import { FIELD, FIELD_INPUT, FieldFrame } from "./field-frame";

const ITEM =
  "flex min-h-[34px] cursor-pointer items-center justify-between gap-3 px-3 data-[selected=true]:bg-live-tint data-[selected=true]:text-live";
const HEADING =
  "[&_[cmdk-group-heading]]:h2 [&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1";

/** What an action is found by. */
const wordsOf = ({ title, group }: Action): string => `${title} ${group}`;

/** As in the library: every word typed must begin a word of what is listed. */
function beginsEveryWord(listed: string, typed: string): number {
  const words = listed.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  const sought = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== "");
  return sought.every((word) => words.some((w) => w.startsWith(word))) ? 1 : 0;
}

/** Actions that the list offers here. An undo has the words of what it takes back: it stands behind what does that anew. */
function useListed(): readonly Action[] {
  const listed = useEnabledActions().filter((a) => !a.keyOnly && a.id !== "find" && a.id !== "actions");
  return [...listed.filter(({ past }) => past !== true), ...listed.filter(({ past }) => past === true)];
}

const firstFor = (actions: readonly Action[], typed: string): Action | undefined =>
  actions.find((action) => beginsEveryWord(wordsOf(action), typed) === 1);

/** Whether what the list marks is something that the words find. */
function isMarkedFor(list: Element, typed: string): boolean {
  const marked = list.querySelector<HTMLElement>("[cmdk-item][aria-selected=true]");
  return marked !== null && beginsEveryWord(marked.dataset["value"] ?? "", typed) === 1;
}

export interface PaletteProps {
  readonly typed: string;
  /** Words behind which Enter was pressed before the list was here: each does the first action that matches. */
  readonly entered: readonly string[];
  readonly onTyped: (words: string) => void;
  /** Back to where the hand was. */
  readonly onDone: () => void;
  /** The hand went elsewhere by itself. */
  readonly onLeft: () => void;
}

/** The palette as a function, to be fetched and kept by the field that it takes the place of. */
export const renderPalette = (props: PaletteProps) => <Palette {...props} />;

/** The field with all that can be done below it. It takes over what was typed while it was on its way. */
function Palette({ typed, entered, onTyped, onDone, onLeft }: PaletteProps) {
  const field = useRef<HTMLInputElement>(null);
  const actions = useListed();
  const done = (run: () => void) => () => {
    onDone();
    run();
  };
  useLayoutEffect(() => {
    const { current } = field;
    current?.focus();
    current?.setSelectionRange(current.value.length, current.value.length);
  }, []);
  return (
    <Command
      label="Find a sound, a strip, an action"
      className={FIELD}
      filter={beginsEveryWord}
      onKeyDown={(event) => {
        if (event.key === "Escape") {
          event.preventDefault();
          onDone();
        }
        if (event.key === "Enter" && !isMarkedFor(event.currentTarget, typed)) {
          // The list has not caught up with what was typed: what it marks is not what is meant.
          event.preventDefault();
          const meant = firstFor(actions, typed);
          if (meant) done(meant.run)();
        }
      }}
      onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && onLeft()}
    >
      <FieldFrame>
        <Command.Input
          ref={field}
          value={typed}
          onValueChange={onTyped}
          placeholder="An action, a sound, a project"
          className={FIELD_INPUT}
        />
      </FieldFrame>
      <Command.List
        onMouseDown={(event) => event.preventDefault()}
        className="absolute inset-x-0 top-[34px] z-40 max-h-[420px] overflow-auto rounded-card border border-edge bg-card pb-1"
      >
        <Found words={typed} entered={entered} actions={actions} done={done} onDone={onDone} />
      </Command.List>
    </Command>
  );
}

interface FoundProps extends Pick<PaletteProps, "entered" | "onDone"> {
  readonly words: string;
  readonly actions: readonly Action[];
  /** Leaves the field, then does it. */
  readonly done: (run: () => void) => () => void;
}

/** What the words match: actions of this screen, sounds, projects. */
function Found({ words, entered, actions, done, onDone }: FoundProps) {
  const router = useRouter();
  const open = useOpenSound();
  const recall = useRecall();
  const path = usePathname();
  const project = useInHand((h) => h.project);
  // A sound is applied to what is on screen; anywhere else its name opens it.
  const applies = recall.targetWords !== null && project !== null && path === `/projects/${project}`;
  const q = words.trim();
  const presets = useQuery({
    queryKey: [...KEYS.presets, "field", q],
    queryFn: () => api.listPresets({ q, limit: 6 }),
    placeholderData: keepPreviousData,
  });
  const strips = useQuery({
    queryKey: [...KEYS.projects, "strips", "field", q],
    queryFn: () => api.findStrips({ q, limit: 12 }),
    enabled: q !== "",
    placeholderData: keepPreviousData,
  });
  // Those of the project in hand stand in a group of their own.
  const elsewhere = strips.data?.items.filter((row) => row.project !== project).slice(0, 6) ?? [];
  const projects = useQuery({ queryKey: KEYS.projects, queryFn: () => api.listProjects() });
  const inHand = useOpenProject(project);
  const goToStrip = (id: string) => {
    chooseStrips([id]);
    router.push(path.startsWith("/bench") ? `/bench?project=${project}&strip=${id}` : `/projects/${project}`);
  };
  const enter = useEffectEvent(() => {
    const meant = entered.flatMap((typed) => firstFor(actions, typed) ?? []);
    if (meant.length === 0) return;
    // Who types on already is left in the field.
    if (words === "") onDone();
    for (const { run } of meant) run();
  });
  useEffect(() => enter(), []);
  return (
    <>
      <Command.Empty className="px-3 py-4 text-soft">Nothing matches. Esc leaves the field.</Command.Empty>
      <Command.Group heading="Actions" className={HEADING}>
        {actions.map((action) => (
          <Command.Item key={action.id} value={wordsOf(action)} onSelect={done(action.run)} className={ITEM}>
            <span>{action.title}</span>
            {action.keys?.[0] && <Key>{showKey(action.keys[0])}</Key>}
          </Command.Item>
        ))}
      </Command.Group>
      {q !== "" && (
        <Command.Group heading={applies ? `Apply ${recall.targetWords}` : "Open on the bench"} className={HEADING}>
          {presets.data?.items.map((preset) => (
            <Command.Item
              key={preset.id}
              // Those of the words before stay only where their names begin with the new ones too.
              value={`${presets.isPlaceholderData ? "" : q} ${preset.card.name} ${preset.id}`}
              onSelect={done(() => (applies ? recall.apply(preset) : open(preset)))}
              className={ITEM}
            >
              <span className="name">{preset.card.name}</span>
              <span className="truncate text-small text-soft">
                {(applies && recall.effectWords(preset)) || KIND_NAMES[preset.kind]}
              </span>
            </Command.Item>
          ))}
        </Command.Group>
      )}
      {q !== "" && inHand.body && (
        <Command.Group heading={`Strips of ${inHand.body.project.name}`} className={HEADING}>
          {inHand.body.project.strips.map((strip) => (
            <Command.Item
              key={strip.id}
              value={`${strip.look.name} strip ${strip.id}`}
              onSelect={done(() => goToStrip(strip.id))}
              className={ITEM}
            >
              <span className="name">{strip.look.name}</span>
              <span className="text-small text-soft">strip</span>
            </Command.Item>
          ))}
        </Command.Group>
      )}
      {q !== "" && elsewhere.length > 0 && (
        <Command.Group
          heading={applies ? `Strips of other projects, planned ${recall.targetWords}` : "Strips of other projects"}
          className={HEADING}
        >
          {elsewhere.map(({ project: id, projectName, strip }) => (
            <Command.Item
              key={`${id} ${strip.id}`}
              value={`${strips.isPlaceholderData ? "" : q} ${strip.look.name} ${projectName} ${id} ${strip.id}`}
              onSelect={done(() =>
                applies
                  ? recall.bring({ project: id, strips: [strip.id] })
                  : router.push(`/bench?project=${id}&strip=${strip.id}`),
              )}
              className={ITEM}
            >
              <span className="name">{strip.look.name}</span>
              <span className="truncate text-small text-soft">{projectName}</span>
            </Command.Item>
          ))}
        </Command.Group>
      )}
      <Command.Group heading="Projects" className={HEADING}>
        {projects.data?.projects.map((project) => (
          <Command.Item
            key={project.id}
            value={`${project.name} ${project.artist} project`}
            onSelect={done(() => router.push(`/projects/${project.id}`))}
            className={ITEM}
          >
            <span className="name">{project.name}</span>
            <span className="text-small text-soft">{project.artist}</span>
          </Command.Item>
        ))}
      </Command.Group>
    </>
  );
}
