"use client";

import { keepPreviousData, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PlanBody, PlanRequest } from "@/contracts/projects";
import type { PresetRow, Use } from "@/contracts/records";
import { counted } from "@/core/names/count";
import { SOUND } from "@/core/recall/choices";
import { Button } from "../kit/button";
import { Loading } from "../kit/bits";
import { Scroll } from "../kit/scroll";
import { orSay, say } from "../kit/say";
import { Sheet } from "../kit/sheet";
import { Tick } from "../kit/tick";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet } from "./filing";

const keyOf = ({ project, strip }: Use): string => `${project} ${strip}`;

/** Strips that play another version than the newest, or have changed since. */
const isOld = (use: Use, newest: number): boolean => use.version < newest;

interface Group {
  readonly project: string;
  readonly name: string;
  readonly uses: readonly Use[];
}

function groupsOf(uses: readonly Use[]): readonly Group[] {
  const groups = new Map<string, Use[]>();
  for (const use of uses) groups.set(use.project, [...(groups.get(use.project) ?? []), use]);
  return [...groups].map(([project, own]) => ({ project, name: own[0]!.projectName, uses: own }));
}

/** What is brought to which strips: the preset, or of a set to each the strip of it that it came from. */
function sourcesOf({ id, version }: Pick<PresetRow, "id" | "version">, uses: readonly Use[]) {
  const whole = uses.filter(({ of }) => of.length === 0);
  const keys = [...new Set(uses.flatMap(({ of }) => of))];
  return [
    { source: { preset: id, version }, strips: whole.map(({ strip }) => strip) },
    ...keys.map((key) => ({
      source: { preset: id, version, strip: key },
      strips: uses.filter(({ of }) => of.includes(key)).map(({ strip }) => strip),
    })),
  ].filter(({ strips }) => strips.length > 0);
}

/** What the newest version would change on the strips that are ticked, in each project. */
function usePlans(preset: Pick<PresetRow, "id" | "version">, groups: readonly Group[], ticked: ReadonlySet<string>) {
  const wanted = groups.flatMap(({ project, uses }) => {
    const chosen = uses.filter((use) => ticked.has(keyOf(use)));
    return chosen.length > 0 ? [{ project, uses: chosen }] : [];
  });
  const plans = useQueries({
    queries: wanted.map(({ project, uses }) => {
      const request: PlanRequest = {
        requests: sourcesOf(preset, uses).map(({ source, strips }) => ({
          source,
          parts: [...SOUND],
          targets: { strips },
          mode: "itself",
        })),
      };
      return {
        queryKey: [...KEYS.project(project), "plan", request],
        queryFn: () => api.planRecall(project, request),
        placeholderData: keepPreviousData,
        staleTime: 0,
      };
    }),
  });
  return {
    byProject: new Map(wanted.map(({ project }, at) => [project, plans[at]?.data])),
    isPending: plans.some(({ isPending, isPlaceholderData }) => isPending || isPlaceholderData),
    error: plans.find(({ error }) => error)?.error ?? null,
  };
}

/** Where a sound is used, at which version, how far from that; and the newest brought to the strips that are chosen, in all projects at once. */
export function UsesSheet({ preset }: { readonly preset: PresetRow }) {
  const queries = useQueryClient();
  const detail = useQuery({
    queryKey: [...KEYS.preset(preset.id), "detail"],
    queryFn: () => api.getPreset(preset.id),
  }).data;
  const newest = detail?.preset.version ?? preset.version;
  const found = useQuery({ queryKey: KEYS.uses(preset.id), queryFn: () => api.listUses(preset.id) }).data;
  const uses = found?.uses ?? [];
  const groups = groupsOf(uses);
  const [chosen, setChosen] = useState<ReadonlySet<string> | null>(null);
  const ticked = chosen ?? new Set(uses.filter((use) => isOld(use, newest)).map(keyOf));
  const plans = usePlans({ id: preset.id, version: newest }, groups, ticked);
  const { refusal, attempt } = useAttempt();
  const [busy, setBusy] = useState(false);
  const changes = [...plans.byProject].flatMap(([project, body]) =>
    body && body.plan.steps.length > 0 ? [{ project, baseRevision: body.revision, steps: body.plan.steps }] : [],
  );
  const strips = new Set(
    changes.flatMap(({ project, steps }) => steps.map((step) => `${project} ${"strip" in step ? step.strip : ""}`)),
  );
  const tick = (some: readonly Use[], on: boolean) => {
    const next = new Set(ticked);
    for (const use of some) {
      if (on) next.add(keyOf(use));
      else next.delete(keyOf(use));
    }
    setChosen(next);
  };
  const apply = () =>
    attempt(async () => {
      setBusy(true);
      try {
        const label = `Take version ${newest} of “${preset.card.name}”`;
        const made = await api.changeTogether({ label, changes });
        await Promise.all(made.revisions.map((r) => queries.invalidateQueries({ queryKey: KEYS.project(r.project) })));
        closeSheet();
        say(
          `Version ${newest} of “${preset.card.name}” is on ${counted(strips.size, "strip")} of ${counted(changes.length, "project")}`,
          {
            action: { label: "Undo", onClick: () => orSay(takeBack(made)) },
          },
        );
      } finally {
        setBusy(false);
      }
    });
  const takeBack = async (made: Awaited<ReturnType<typeof api.changeTogether>>) => {
    await api.undoTogether(made);
    say(`Taken back in ${counted(made.revisions.length, "project")}`);
  };
  const canApply = changes.length > 0 && !plans.isPending && !busy;
  return (
    <Sheet
      open
      onClose={closeSheet}
      title={`“${preset.card.name}”, used in`}
      aside={found ? `${counted(groups.length, "project")}, ${counted(uses.length, "strip")}` : ""}
      className="w-[760px]"
    >
      {!found && <Loading what="Looking" />}
      {found && groups.length === 0 && <p className="text-soft">No project uses it yet.</p>}
      <Scroll label="Projects that use it" className="max-h-[420px] border-edge border-t">
        {groups.map((group) => (
          <ProjectUses
            key={group.project}
            group={group}
            newest={newest}
            ticked={ticked}
            body={plans.byProject.get(group.project)}
            onTick={tick}
          />
        ))}
      </Scroll>
      {plans.error && <p role="alert">{plans.error.message}</p>}
      {refusal}
      <div className="flex justify-end gap-2">
        <Button onClick={closeSheet}>Close</Button>
        <Button main disabled={!canApply} onClick={() => void apply()}>
          {canApply || plans.isPending
            ? `Bring version ${newest} to ${counted(strips.size, "strip")}`
            : ticked.size === 0
              ? "No strip is chosen"
              : "Nothing would change"}
        </Button>
      </div>
    </Sheet>
  );
}

interface ProjectProps {
  readonly group: Group;
  readonly newest: number;
  readonly ticked: ReadonlySet<string>;
  readonly body: PlanBody | undefined;
  readonly onTick: (uses: readonly Use[], on: boolean) => void;
}

/** The strips of one project, and what would be done to them. */
function ProjectUses({ group: { project, name, uses }, newest, ticked, body, onTick }: ProjectProps) {
  const router = useRouter();
  const all = uses.every((use) => ticked.has(keyOf(use)));
  const some = uses.some((use) => ticked.has(keyOf(use)));
  return (
    <section className="border-rule border-b py-2">
      <h3 className="flex items-center gap-2 pb-1">
        <Tick label={`All of ${name}`} on={all} onChange={(on) => onTick(uses, on)} />
        <span className="name">{name}</span>
        {some && body && <span className="text-small text-soft">{counted(body.plan.steps.length, "change")}</span>}
      </h3>
      <ul className="pl-[23px]">
        {uses.map((use) => (
          <li key={keyOf(use)} className="flex min-h-[28px] items-center gap-2">
            <Tick
              label={`${use.stripName} of ${name}`}
              on={ticked.has(keyOf(use))}
              onChange={(on) => onTick([use], on)}
            />
            <button
              type="button"
              title="Open it on the bench"
              className="min-w-0 flex-1 truncate text-left hover:text-live"
              onClick={() => {
                closeSheet();
                router.push(`/bench?project=${project}&strip=${use.strip}`);
              }}
            >
              {use.stripName}
            </button>
            <span className={`num-small ${isOld(use, newest) ? "text-edit" : "text-soft"}`}>
              version {use.version} of {newest}
            </span>
            <span className={`w-[150px] text-right text-small ${use.differs > 0 ? "text-edit" : "text-soft"}`}>
              {use.differs > 0 ? `differs by ${counted(use.differs, "value")}` : "as saved"}
            </span>
          </li>
        ))}
      </ul>
      {some && body && body.sentences.length > 0 && (
        <details className="pl-[23px] text-small">
          <summary className="cursor-pointer text-soft">What would change here, value by value</summary>
          <ol className="grid list-decimal gap-[2px] py-1 pl-[18px]">
            {body.sentences.map((sentence, at) => (
              <li key={body.plan.steps[at]?.id ?? sentence}>{sentence}</li>
            ))}
          </ol>
          {body.plan.questions.map(({ id, text, choices, answer }) => (
            <p key={id}>
              {text} {choices.find((choice) => choice.id === answer)?.text}.
            </p>
          ))}
        </details>
      )}
    </section>
  );
}
