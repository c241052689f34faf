"use client";

import { counted } from "@/core/names/count";
import { Play } from "lucide-react";
import { useRouter, useSearchParams } from "next/navigation";
import { useEffect } from "react";
import type { PlanBody } from "@/contracts/projects";
import { type Project, findStrip } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import { isStrips } from "@/core/presets/preset";
import { useActions } from "../actions/actions";
import { Empty, Loading, SideHeading } from "../kit/bits";
import { Button } from "../kit/button";
import { Panels } from "../kit/panels";
import { useTakeProject } from "../projects/in-hand";
import { hear, hearBeside, setPlaying, setProcessed } from "../listening/listening";
import { soundOfStrip } from "../listening/strip-sound";
import { say } from "../kit/say";
import type { Put } from "./match-drag";
import { Matches } from "./matches";
import { PlanHead } from "./plan-head";
import { Rows } from "./plan-rows";
import { type PlanSource, namesOf } from "./sources";
import { usePlan } from "./use-plan";
import { Questions, Following } from "./plan-words";

/** Another preset or other strips are another plan: what was switched off in this one does not count there. */
export function PlanScreen({ id }: { readonly id: string }) {
  const asked = useSearchParams().toString();
  return <Plan key={asked} id={id} />;
}

function Plan({ id }: { readonly id: string }) {
  useTakeProject(id);
  const state = usePlan(id);
  const { editing, sources, planned, error } = state;
  if (state.applying) return <Loading what="Applying" />;
  if (error)
    return (
      <Empty page title="This cannot be planned">
        <p role="alert">{error.message}</p>
      </Empty>
    );
  const project = editing.body?.project;
  if (!project || !sources || !planned.data) return <Loading what="Planning" />;
  return (
    <OpenPlan
      project={project}
      sources={sources}
      body={planned.data}
      state={state}
      fresh={!planned.isPlaceholderData}
    />
  );
}

interface OpenProps {
  readonly project: Project;
  readonly sources: readonly PlanSource[];
  readonly body: PlanBody;
  readonly state: ReturnType<typeof usePlan>;
  /** False while a changed plan is on its way. */
  readonly fresh: boolean;
}

function OpenPlan({ project, sources, body: { plan, sentences }, state, fresh }: OpenProps) {
  const router = useRouter();
  const { editing } = state;
  const applied = applySteps(project, plan.steps);
  const after = applied.ok ? applied.value : project;
  const count = plan.steps.length;
  const targetWords =
    state.strips.length === 1
      ? (findStrip(project, state.strips[0]!)?.look.name ?? "")
      : state.strips.length > 1
        ? `${state.strips.length} strips`
        : sources.some(({ content }) => isStrips(content)) || sources.length > 1
          ? "strips"
          : "a new strip";
  const names = namesOf(sources);
  const put: Put = (answers) => state.setAnswers((given) => ({ ...given, ...answers }));
  const address = `/projects/${project.id}`;
  const back = () => router.push(address);
  const canApply = count > 0 && fresh;
  const apply = async () => {
    if (!canApply) return;
    const label = `Apply ${names} to ${targetWords}`;
    state.setApplying(true);
    const { pathname, search } = window.location;
    const applying = editing.commit(label, () => plan.steps);
    // What it does is shown there at once.
    back();
    const done = await applying;
    // Where it was refused, why is said by then: back to the plan, which is made anew, unless the hand has gone on.
    if (done === null) return window.location.pathname === address ? router.push(pathname + search) : undefined;
    state.rememberParts();
    say(`${label.replace(/^Apply/, "Applied")}: ${counted(count, "change")}`, {
      action: { label: "Undo", onClick: () => void editing.undo(done) },
    });
  };
  useEffect(() => () => hearBeside(null), []);
  const hearIt = () => {
    const target = plan.rows[0]?.strip;
    const [now, then] = target ? [findStrip(project, target), findStrip(after, target)] : [null, null];
    if (!then) return;
    hearBeside(now && soundOfStrip(now, project.tempo, `${now.look.name}, as it is`));
    hear(soundOfStrip(then, project.tempo, `${then.look.name}, after`));
    setProcessed(true);
    void setPlaying(true);
  };
  useActions([
    {
      id: "apply-plan",
      title: `Apply ${counted(count, "change")}`,
      group: "Plan",
      keys: ["Ctrl+Enter"],
      enabled: count > 0,
      run: () => void apply(),
    },
    { id: "hear-plan", title: "Hear it, with B as it is now", group: "Plan", keys: ["H"], run: () => hearIt() },
    { id: "cancel-plan", title: "Leave the plan", group: "Plan", keys: ["Escape"], run: () => void back() },
  ]);
  const main = (
    <section aria-label="Plan" className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none items-baseline gap-3 px-4 pt-[14px] pb-[10px]">
        <h1 className="h1 truncate">Apply {names}</h1>
        <p className="min-w-[30%] truncate text-soft">
          {sources.length === 1 && `${sources[0]!.words}, `}onto {targetWords} of {project.name}
        </p>
      </header>
      <PlanHead project={project} state={state} />
      <Rows project={project} after={after} plan={plan} off={state.off} onOff={state.setOff} onPut={put} />
    </section>
  );
  const side = (
    <aside aria-label="Questions and changes" className="flex h-full flex-col bg-card">
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto px-[18px] py-4">
        <Questions
          questions={plan.questions.filter(({ id }) => !plan.matches.some((match) => match.id === id))}
          onAnswer={(question, choice) => put({ [question]: choice })}
        />
        <Matches project={project} matches={plan.matches} onPut={put} />
        <SideHeading>In words</SideHeading>
        {count === 0 ? (
          <p className="text-small text-soft">Nothing would change: it is all there already, or switched off.</p>
        ) : (
          <ol className="grid list-decimal gap-[2px] pl-[18px] text-small">
            {sentences.map((sentence, at) => (
              <li key={plan.steps[at]?.id ?? sentence}>{sentence}</li>
            ))}
          </ol>
        )}
        <Following after={after} plan={plan} />
        {plan.notes.length > 0 && (
          <>
            <SideHeading>Left as it is</SideHeading>
            <ul className="grid gap-1 text-small">
              {plan.notes.map((note) => (
                <li key={`${note.strip} ${note.text}`}>
                  {findStrip(after, note.strip)?.look.name ?? ""}: {note.text}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      <div className="flex flex-wrap gap-2 px-[18px] py-4">
        <Button onClick={hearIt}>
          <Play size={16} aria-hidden="true" />
          Hear it
        </Button>
        <Button onClick={back}>Cancel</Button>
        <Button main disabled={!canApply} onClick={() => void apply()}>
          Apply {counted(count, "change")}
        </Button>
      </div>
    </aside>
  );
  return (
    <Panels
      id="plan"
      panes={[
        { id: "rows", label: "the plan", min: 600, children: main },
        { id: "words", label: "the words", size: 300, min: 240, children: side },
      ]}
    />
  );
}
