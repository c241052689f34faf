"use client";

import { useQueryClient } from "@tanstack/react-query";
import equal from "fast-deep-equal";
import { useRouter } from "next/navigation";
import { type ReactNode, useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { compareProjects } from "@/core/history/beside";
import { counted } from "@/core/names/count";
import { mixTitle, mixesOf } from "@/core/projects/mixes";
import { cutText } from "@/core/names/cut";
import { LONGEST_NAME } from "@/core/names/free";
import { type Project, findStrip, withoutKept } from "@/core/projects/project";
import { useActions } from "../actions/actions";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Panels } from "../kit/panels";
import { say } from "../kit/say";
import { Toggle } from "../kit/toggle";
import { useRows } from "../ledger/use-rows";
import { planAddress } from "../plan/address";
import { useProjectAt } from "../plan/sources";
import { thenAddress } from "../bench/use-place";
import { BinnedLine } from "../projects/binned-line";
import { historyActions } from "../projects/history";
import { useTakeProject } from "../projects/in-hand";
import { type OpenProject, useOpenProject } from "../projects/open-project";
import { send } from "../projects/sending";
import { LinesPane } from "./lines-pane";
import { MixesList } from "./mixes-list";
import { MomentsPane } from "./moments-pane";
import { NoteSheet } from "./note-sheet";
import { MOMENT_WORDS, ThenTable } from "./then-table";
import { indexAfter, thenRows } from "./then-rows";
import { type LookedAt, useLookedAt } from "./use-looked-at";
import { useMixes } from "./use-mixes";
import { useMomentWords } from "./use-moments";

/** The past of a project: any moment of it as it was, beside now or another, and the way back to it. */
export function Past({ id }: { readonly id: string }) {
  const open = useOpenProject(id);
  useTakeProject(id);
  if (open.error)
    return (
      <Empty page title="This project cannot be opened">
        <p role="alert">{open.error.message}</p>
      </Empty>
    );
  if (!open.body) return <Loading what="Looking back" />;
  return <OpenPast body={open.body} open={open} />;
}

/** What the mixes are called that are kept of moments. */
const titlesOf = (project: Project): ReadonlyMap<number, string> =>
  new Map(mixesOf(project).map((mix) => [mix.n, mixTitle(mix)]));

/** By the name that it is kept under; when that was stands in the list. */
const called = (title: string | undefined, words: string): string => (title === undefined ? words : `“${title}”`);

/** The two moments that are beside each other, and how they are called: in a word, and by when they were. */
function useBoth({ project: now, revision }: ProjectBody, { at, beside }: Pick<LookedAt, "at" | "beside">) {
  const then = useProjectAt(now.id, at).data?.project ?? null;
  const held = useProjectAt(beside === null ? null : now.id, beside ?? undefined).data?.project ?? null;
  const titles = useMemo(() => titlesOf(now), [now]);
  const thenWords = called(titles.get(at), useMomentWords(now.id, at));
  const besideWords = called(titles.get(beside ?? revision), useMomentWords(now.id, beside ?? revision));
  return {
    then,
    other: beside === null ? now : held,
    titles,
    names: { then: at === revision ? "now" : "then", other: beside === null ? "now" : "the other" },
    words: { then: thenWords, other: beside === null ? "now" : besideWords },
  };
}

function OpenPast({ body, open }: { readonly body: ProjectBody; readonly open: OpenProject }) {
  const { project: now, revision } = body;
  const lookedAt = useLookedAt(now.id, revision);
  const { at, beside, look, compareWith } = lookedAt;
  const { then, other, names, words, titles } = useBoth(body, lookedAt);
  const mixes = useMixes({ project: now, at, look });
  const [onlyDifferent, setOnlyDifferent] = useState(false);
  const [noting, setNoting] = useState(false);
  const rows = useMemo(
    () => (then ? thenRows(then, other && compareProjects(then, other), onlyDifferent) : []),
    [then, other, onlyDifferent],
  );
  const strips = useMemo(() => rows.map(({ strip }) => strip), [rows]);
  const hand = useRows(strips);
  const row = rows.find(({ strip }) => strip.id === hand.cursor?.id) ?? null;
  const acts = usePastActions({ body, open, at, then, chosen: hand.chosen });
  const bench = useThenOnBench({ body, at, then, strip: row?.strip.id ?? null, words: words.then });
  useActions([
    {
      id: "compare-with",
      title: beside === at ? "Compare with now again" : "Compare other moments with this one",
      group: "Past",
      keys: ["C"],
      run: () => compareWith(beside === at ? null : at),
    },
  ]);
  const table = (
    <section aria-label={`${now.name}, as it was`} className="flex h-full min-w-0 flex-col">
      <Head name={now.name} isNow={at === revision} chosen={hand.chosen.length} acts={acts} words={words}>
        <Button small onClick={mixes.keep}>
          Keep as a mix…
        </Button>
        <Button small disabled={at === (beside ?? revision)} onClick={() => setNoting(true)}>
          In words…
        </Button>
        <Button small disabled={bench === null} onClick={() => bench?.()}>
          On the bench
        </Button>
        {beside !== at && (
          <Button small onClick={() => compareWith(at)}>
            Compare others with this
          </Button>
        )}
        {beside !== null && (
          <Button small onClick={() => compareWith(null)}>
            Compare with now
          </Button>
        )}
        <span className="ml-auto">
          <Toggle label="Only what differs" on={onlyDifferent} onChange={setOnlyDifferent} />
        </span>
      </Head>
      <BinnedLine body={body} />
      {then ? (
        <ThenTable
          project={then}
          words={MOMENT_WORDS}
          rows={rows}
          chosen={hand.chosen}
          cursor={hand.cursor?.id ?? null}
          onChoose={hand.choose}
          onMove={(by, how) => hand.moveTo(indexAfter(by, hand.at, rows.length), how)}
        />
      ) : (
        <div className="flex-1">
          <Loading what="Putting it together" />
        </div>
      )}
      {row && at !== (beside ?? revision) && (
        <LinesPane strip={row.strip} beside={row.beside} tempo={then?.tempo ?? now.tempo} names={names} />
      )}
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        <Key>↑ ↓</Key> moments <Key>C</Key> compare <Key>X</Key> A and B <Key>Shift Enter</Key> take{" "}
        <Key>Ctrl Enter</Key> return <Key>Shift K</Key> keep
      </p>
      {mixes.sheet}
      {noting && <Noting body={body} lookedAt={lookedAt} words={words} onClose={() => setNoting(false)} />}
    </section>
  );
  return (
    <Panels
      id="past"
      panes={[
        {
          id: "moments",
          label: "the moments",
          size: 330,
          min: 240,
          children: (
            <MomentsPane
              id={now.id}
              revision={revision}
              at={at}
              beside={beside}
              strip={
                hand.chosen.length === 1 && hand.cursor ? { id: hand.cursor.id, name: hand.cursor.look.name } : null
              }
              onAt={look}
              ofStrip={lookedAt.ofStrip}
              onOfStrip={lookedAt.narrowToStrip}
              titles={titles}
            >
              {mixesOf(now).length > 0 && (
                <MixesList mixes={mixesOf(now)} at={at} beside={beside} onAt={look} {...mixes} />
              )}
            </MomentsPane>
          ),
        },
        { id: "then", label: "the strips", min: 560, children: table },
      ]}
    />
  );
}

interface OnBench extends Pick<Acting, "body" | "at" | "then"> {
  /** The row in hand. */
  readonly strip: string | null;
  /** How the moment is called. */
  readonly words: string;
}

/** Opens a strip as it was, as a copy: what is turned there is turned in no project. Null where it was not there, or is a folder. */
function useThenOnBench({ body: { project, revision }, at, then, strip: id, words }: OnBench): (() => void) | null {
  const router = useRouter();
  const found = then && id !== null ? findStrip(then, id) : null;
  const strip = found?.kind === "folder" ? null : found;
  const open = () => {
    if (!strip) return;
    if (at === revision) return router.push(`/bench?project=${project.id}&strip=${strip.id}`);
    const name = cutText(`${strip.look.name} of ${project.name}, ${words}`, LONGEST_NAME);
    router.push(thenAddress(project.id, { revision: at, strip: strip.id, name }));
  };
  useActions([
    {
      id: "then-bench",
      title: "Open the strip on the bench, as it was",
      group: "Past",
      keys: ["B"],
      enabled: strip !== null,
      run: open,
    },
  ]);
  return strip && open;
}

interface NotingProps {
  readonly body: ProjectBody;
  readonly lookedAt: LookedAt;
  readonly words: HeadProps["words"];
  readonly onClose: () => void;
}

/** What was done between the two moments, from the earlier to the later. */
function Noting({ body: { project, revision }, lookedAt: { at, beside }, words, onClose }: NotingProps) {
  const other = beside ?? revision;
  const [then, later] = [words.then, words.other];
  const said = at <= other ? { from: then, to: later } : { from: later, to: then };
  return (
    <NoteSheet project={project} from={Math.min(at, other)} to={Math.max(at, other)} words={said} onClose={onClose} />
  );
}

interface HeadProps {
  readonly name: string;
  readonly isNow: boolean;
  readonly chosen: number;
  readonly acts: ReturnType<typeof usePastActions>;
  /** The moment that is looked at, and the one that it is compared with. */
  readonly words: { readonly then: string; readonly other: string };
  readonly children: ReactNode;
}

function Head({ name, isNow, chosen, acts, words, children }: HeadProps) {
  return (
    <>
      <header className="flex flex-none items-center gap-3 px-[14px] pt-[14px] pb-2">
        <h1 className="h1 truncate">{name}</h1>
        <span className="flex-none rounded-card bg-edit-tint px-2 text-edit">{isNow ? "now" : "as it was"}</span>
        <span className="ml-auto flex flex-none gap-2">
          <Button onClick={acts.leave}>Back to the project</Button>
          <Button
            disabled={!acts.canTake}
            title={acts.canTake ? undefined : "Choose strips that were there then"}
            onClick={acts.take}
          >
            Take {chosen === 0 ? "strips" : counted(chosen, "strip")}…
          </Button>
          <Button main disabled={!acts.canReturn} onClick={acts.comeBack}>
            Return to this
          </Button>
        </span>
      </header>
      <div className="flex flex-none flex-wrap items-center gap-x-4 gap-y-1 px-[14px] pb-3 text-soft">
        <span className="flex min-w-0 max-w-full gap-[5px]">
          <span className="min-w-0 truncate" title={words.then}>
            {words.then}
          </span>
          <span className="text-faint">beside</span>
          <span className="min-w-0 truncate" title={words.other}>
            {words.other}
          </span>
        </span>
        {children}
      </div>
    </>
  );
}

interface Acting {
  readonly body: ProjectBody;
  readonly open: OpenProject;
  readonly at: number;
  readonly then: Project | null;
  readonly chosen: readonly string[];
}

/** What can be done with a moment. */
function usePastActions({ body: { project, revision }, open, at, then, chosen }: Acting) {
  const router = useRouter();
  const queries = useQueryClient();
  const there = chosen.filter((id) => then?.strips.some((strip) => strip.id === id));
  const canTake = there.length > 0 && at !== revision;
  const canReturn = at !== revision;
  const leave = () => router.push(`/projects/${project.id}`);
  const take = () => {
    if (!canTake) return;
    const here = there.filter((id) => project.strips.some((strip) => strip.id === id));
    router.push(planAddress(project.id, { project: project.id, revision: at, strips: there }, { strips: here }));
  };
  const isThere = () => {
    const shown = queries.getQueryData<ProjectBody>(KEYS.project(project.id))?.project;
    return shown !== undefined && then !== null && equal(withoutKept(shown), withoutKept(then));
  };
  const comeBack = async () => {
    if (!canReturn) return;
    const done = await send(queries, project.id, {
      // Of two quick presses the second finds that it is done.
      call: (baseRevision) =>
        isThere() ? Promise.resolve(null) : api.returnTo(project.id, { baseRevision, revision: at }),
      isShown: false,
    });
    if (done)
      say(done.history.undo ?? "Returned", {
        action: { label: "Undo", onClick: () => void open.undo(done.revision) },
      });
  };
  const group = "Past";
  useActions([
    ...historyActions(open, group),
    { id: "leave", title: "Back to the project", group, keys: ["Escape"], run: leave },
    { id: "take", title: "Take the chosen strips from it…", group, keys: ["Shift+Enter"], enabled: canTake, run: take },
    {
      id: "return",
      title: "Return to this moment",
      group,
      keys: ["Ctrl+Enter"],
      enabled: canReturn,
      run: () => void comeBack(),
    },
  ]);
  return { canTake, canReturn, leave, take, comeBack: () => void comeBack() };
}
