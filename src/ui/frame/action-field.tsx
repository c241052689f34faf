"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { Search } from "lucide-react";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { create } from "zustand";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { KIND_NAMES } from "@/core/presets/preset";
import { showKey, useActions, useEnabledActions } from "../actions/actions";
import { Key } from "../kit/bits";
import { cx } from "../kit/class-names";
import { useRecall } from "../plan/recall";

/** A screen that searches as one types lends the field its words; elsewhere the field lists what can be done. */
interface Finder {
  readonly words: string;
  readonly onWords: (words: string) => void;
  /** Down and Enter leave the field for the list. */
  readonly onLeave: () => void;
  readonly hint: string;
}

export const useFinder = create<{ readonly finder: Finder | null }>(() => ({ finder: null }));

const ITEM =
  "flex min-h-[34px] cursor-pointer items-center justify-between gap-3 px-3 data-[selected=true]:bg-live-tint data-[selected=true]:text-live";
const HEADING =
  "[&_[cmdk-group-heading]]:h2 [&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1";

/** As in the library: every word typed must begin a word of what is listed. */
function beginsEveryWord(listed: string, typed: string): number {
  const words = listed.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  const sought = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== "");
  return sought.every((word) => words.some((w) => w.startsWith(word))) ? 1 : 0;
}

export function ActionField() {
  const finder = useFinder((f) => f.finder);
  const field = useRef<HTMLInputElement>(null);
  const before = useRef<Element | null>(null);
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const commands = open || !finder;
  const focus = (withCommands: boolean) => {
    before.current = document.activeElement;
    setOpen(withCommands);
    setTyped("");
    field.current?.focus();
    field.current?.select();
  };
  const close = () => {
    setOpen(false);
    setTyped("");
    if (before.current instanceof HTMLElement && before.current !== document.body) before.current.focus();
    else field.current?.blur();
  };
  useActions([
    {
      id: "find",
      title: finder ? "Find a sound" : "Find a sound, a strip, an action",
      group: "Everywhere",
      keys: ["/"],
      run: () => focus(!finder),
    },
    { id: "actions", title: "All actions", group: "Everywhere", keys: ["Ctrl+K"], run: () => focus(true) },
  ]);
  const value = commands ? typed : (finder?.words ?? "");
  return (
    <Command
      label="Find a sound, a strip, an action"
      className="relative w-[470px] max-w-[50vw]"
      filter={beginsEveryWord}
      onKeyDown={(event) => {
        if (event.key === "Escape") {
          event.preventDefault();
          if (!commands) finder?.onWords("");
          close();
        }
        if (!commands && (event.key === "ArrowDown" || event.key === "Enter")) {
          event.preventDefault();
          finder?.onLeave();
        }
      }}
    >
      <div className="flex h-[30px] items-center gap-2 rounded-card border border-bound bg-card px-[10px] focus-within:border-live">
        <Search size={16} strokeWidth={1.75} aria-hidden="true" className="flex-none" />
        <Command.Input
          ref={field}
          value={value}
          onValueChange={(words) => (commands ? setTyped(words) : finder?.onWords(words))}
          onFocus={() => !finder && setOpen(true)}
          onBlur={(event) =>
            !event.currentTarget.closest("[cmdk-root]")?.contains(event.relatedTarget) && setOpen(false)
          }
          placeholder={open ? "An action, a sound, a project" : (finder?.hint ?? "Find a strip, a sound, an action")}
          className="min-w-0 flex-1 bg-transparent outline-none placeholder:text-soft"
        />
        <Key>{showKey("Ctrl+K")}</Key>
      </div>
      <Command.List
        hidden={!open}
        onMouseDown={(event) => event.preventDefault()}
        className="absolute inset-x-0 top-[34px] z-40 max-h-[420px] overflow-auto rounded-card border border-edge bg-card pb-1"
      >
        {open && <Found words={typed} onDone={close} />}
      </Command.List>
    </Command>
  );
}

/** What the words match: actions of this screen, sounds, projects. */
function Found({ words, onDone }: { readonly words: string; readonly onDone: () => void }) {
  const router = useRouter();
  const recall = useRecall();
  const actions = useEnabledActions().filter((a) => !a.keyOnly && a.id !== "find" && a.id !== "actions");
  const q = words.trim();
  const presets = useQuery({
    queryKey: [...KEYS.presets, "field", q],
    queryFn: () => api.listPresets({ q, limit: 6 }),
    placeholderData: keepPreviousData,
  });
  const projects = useQuery({ queryKey: KEYS.projects, queryFn: api.listProjects });
  const done = (run: () => void) => () => {
    onDone();
    run();
  };
  return (
    <>
      <Command.Empty className="px-3 py-4 text-soft">Nothing matches. Esc leaves the field.</Command.Empty>
      <Command.Group heading="Actions" className={HEADING}>
        {actions.map((action) => (
          <Command.Item
            key={action.id}
            value={`${action.title} ${action.group}`}
            onSelect={done(action.run)}
            className={ITEM}
          >
            <span>{action.title}</span>
            {action.keys?.[0] && <Key>{showKey(action.keys[0])}</Key>}
          </Command.Item>
        ))}
      </Command.Group>
      {q !== "" && (
        <Command.Group heading={recall.targetWords ? `Apply ${recall.targetWords}` : "Sounds"} className={HEADING}>
          {presets.data?.items.map((preset) => (
            <Command.Item
              key={preset.id}
              value={`${q} ${preset.card.name} ${preset.id}`}
              onSelect={done(() =>
                recall.targetWords ? recall.apply(preset) : router.push(`/bench?preset=${preset.id}`),
              )}
              className={ITEM}
            >
              <span className="name">{preset.card.name}</span>
              <span className="text-small text-soft">{KIND_NAMES[preset.kind]}</span>
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
            className={cx(ITEM)}
          >
            <span className="name">{project.name}</span>
            <span className="text-small text-soft">{project.artist}</span>
          </Command.Item>
        ))}
      </Command.Group>
    </>
  );
}
