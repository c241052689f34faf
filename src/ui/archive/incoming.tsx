"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import * as api from "@/clients/api";
import * as archive from "@/clients/archive";
import { MOST_NARROWING } from "@/core/documents/limits";
import { counted } from "@/core/names/count";
import { useActions } from "../actions/actions";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { cx } from "../kit/class-names";
import { formatDate } from "../kit/dates";
import { INPUT } from "../kit/field";
import { Panels } from "../kit/panels";
import { orSay, say } from "../kit/say";
import { Segments } from "../kit/segments";
import { IncomingLine } from "./incoming-line";
import { Progress, shareOf } from "../kit/progress";
import { type Brought, type UsedIncoming, useIncoming } from "./use-incoming";
import { choiceWords, sizeWords } from "./words";

/** What is in a file that is to come in, held against the library: chosen by groups and one by one, and brought in as one step. */
export function Incoming({ id }: { readonly id: string }) {
  const used = useIncoming(id);
  const { incoming, head, brought } = used;
  const router = useRouter();
  const leave = () => {
    // What is let go of here may be gone already.
    void archive.letGo(id).catch(() => undefined);
    router.push("/archive");
  };
  if (brought) return <Done brought={brought} />;
  if (used.error)
    return (
      <Empty page title="This file is not on its way">
        <p role="alert">{used.error.message}</p>
        <Button onClick={() => router.push("/archive")}>To the archive</Button>
      </Empty>
    );
  if (!incoming) return <Loading what="Looking at the file" />;
  if (!head)
    return (
      <section aria-label={incoming.name} className="grid content-start gap-3 pt-[14px]">
        <h1 className="h1 truncate px-[14px]">{incoming.name}</h1>
        {used.job && (
          <Progress
            words="Checking it, and holding it against the library"
            share={shareOf(used.job)}
            onStop={used.stop}
          />
        )}
        {!used.isWhole && (
          <p role="alert" className="px-[14px]">
            It did not come whole: {sizeWords(incoming.received)} of {sizeWords(incoming.bytes)}. Drop it here once
            more.
          </p>
        )}
        {used.refusal && <div className="px-[14px]">{used.refusal}</div>}
        <span className="px-[14px]">
          <Button onClick={leave}>To the archive</Button>
        </span>
      </section>
    );
  return <OpenIncoming used={used} onLeave={leave} />;
}

/** What came of it, with what could not be taken. */
function Done({ brought: { presets, projects, undo, problems } }: { readonly brought: Brought }) {
  const router = useRouter();
  const what = [
    ...(presets > 0 ? [counted(presets, "sound")] : []),
    ...(projects > 0 ? [counted(projects, "project")] : []),
  ];
  const takeBack = async () => {
    if (undo === null) return;
    await api.walkFiling("undo", undo);
    say("Taken back; what was new lies in the bin");
    router.push("/archive");
  };
  return (
    <section aria-label="What came in" className="grid max-w-[720px] content-start gap-4 overflow-auto px-6 py-8">
      <h1 className="h1">{what.length === 0 ? "Nothing was left to bring in" : `${what.join(" and ")} came in`}</h1>
      {problems.length > 0 && (
        <div role="alert" className="grid gap-1 border-alert border-l-[3px] bg-alert-tint px-3 py-2">
          <p>{counted(problems.length, "thing")} could not be taken, and nothing of it was changed:</p>
          <ul className="grid max-h-[240px] gap-1 overflow-auto text-small">
            {problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      )}
      <span className="flex gap-2">
        <Button main onClick={() => router.push("/library")}>
          To the library
        </Button>
        <Button onClick={() => router.push("/archive")}>To the archive</Button>
        {undo !== null && <Button onClick={() => orSay(takeBack())}>Take it back</Button>}
      </span>
    </section>
  );
}

const fromWords = ({ head, incoming }: UsedIncoming): string => {
  if (!head?.archive) return "a document by itself";
  const { words, madeAt, madeBy } = head.archive;
  return `${words}, written ${formatDate(madeAt)} by ${madeBy}, ${sizeWords(incoming?.bytes ?? 0)}`;
};

function restWords({ head }: UsedIncoming): string {
  if (!head) return "";
  const { folders, settings, media } = head.rest;
  const said = [
    folders.isNew > 0 && counted(folders.isNew, "new folder"),
    folders.isChanged > 0 &&
      counted(folders.isChanged, "folder called or placed otherwise", "folders called or placed otherwise"),
    settings > 0 && counted(settings, "thing set up there", "things set up there"),
    media > 0 && counted(media, "sound file"),
  ].filter((words) => words !== false);
  return said.length === 0 ? "" : `With it: ${said.join(", ")}.`;
}

function saying(isRestore: boolean, taken: number): string {
  if (isRestore) return "Restore everything";
  return taken === 0 ? "Bring in nothing" : `Bring in ${taken}`;
}

function OpenIncoming({ used, onLeave }: { readonly used: UsedIncoming; readonly onLeave: () => void }) {
  const { incoming, head, groups, taken, busy } = used;
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => list.current?.focus(), []);
  const at = groups.findIndex(({ standing }) => standing === used.standing);
  const move = (to: number) => used.setStanding(groups[to]?.standing ?? null);
  const isRestore = head?.isRestore ?? false;
  const bringWords = saying(isRestore, taken);
  const isEmpty = taken === 0 && !isRestore;
  const group = "Bringing in";
  useActions([
    { id: "leave", title: "Leave it, and back to the archive", group, keys: ["Escape"], enabled: !busy, run: onLeave },
    { id: "bring", title: bringWords, group, keys: ["Ctrl+Enter"], enabled: !busy && !isEmpty, run: used.bring },
    {
      id: "next-group",
      title: "Next group",
      group,
      keys: ["ArrowDown"],
      keyOnly: true,
      run: () => move(Math.min(groups.length - 1, at + 1)),
    },
    { id: "group-before", title: "The group before", group, keys: ["ArrowUp"], keyOnly: true, run: () => move(at - 1) },
  ]);
  const side = (
    <div className="grid h-full content-start gap-1 overflow-auto bg-card py-[14px]">
      <GroupLine
        words="All"
        count={groups.reduce((sum, { count }) => sum + count, 0)}
        isOn={used.standing === null}
        onChoose={() => used.setStanding(null)}
      />
      {groups.map(({ standing, words, count }) => (
        <GroupLine
          key={standing}
          words={words}
          count={count}
          isOn={standing === used.standing}
          onChoose={() => used.setStanding(standing)}
        />
      ))}
    </div>
  );
  const shown = groups.find(({ standing }) => standing === used.standing);
  const main = (
    <section aria-label={`Bring in ${incoming?.name ?? ""}`} className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none items-start gap-3 px-[14px] pt-[14px] pb-2">
        <div className="grid min-w-0 gap-1">
          <h1 className="h1 truncate">{incoming?.name}</h1>
          <p className="text-small text-soft">
            {fromWords(used)}. {restWords(used)}
          </p>
        </div>
        <span className="ml-auto flex flex-none gap-2">
          <Button disabled={busy} onClick={onLeave}>
            Leave it
          </Button>
          <Button main disabled={busy || isEmpty} title="Ctrl Enter" onClick={used.bring}>
            {bringWords}
          </Button>
        </span>
      </header>
      {used.job && <Progress words={used.job.title} share={shareOf(used.job)} onStop={used.stop} />}
      {used.refusal && <div className="flex-none px-[14px] pb-2">{used.refusal}</div>}
      {isRestore && (
        <p className="flex-none px-[14px] pb-2">
          This library is empty: everything comes in as it was, with all that was ever done.
        </p>
      )}
      <div className="flex min-h-[42px] flex-none flex-wrap items-center gap-x-4 gap-y-1 px-[14px] pb-2">
        <span className="text-soft">{shown ? shown.about : "Everything in the file, held against the library."}</span>
        {shown && shown.choices.length > 1 && !isRestore && (
          <Segments
            label={`What is done with all of “${shown.words}”`}
            options={shown.choices.map((choice) => ({ value: choice, label: choiceWords(shown, choice) }))}
            value={shown.choice}
            onChange={(choice) => used.chooseGroup(shown.standing, choice)}
            small
          />
        )}
        <input
          aria-label="Narrow by name or folder"
          placeholder="Narrow by name or folder"
          maxLength={MOST_NARROWING}
          value={used.q}
          className={cx(INPUT, "ml-auto max-w-[220px]")}
          onChange={({ target }) => used.setQ(target.value)}
        />
      </div>
      <div className="relative min-h-0 flex-1 overflow-auto border-edge border-t">
        {/* biome-ignore lint/a11y/useSemanticElements: rows with choices, not a table of figures */}
        <div ref={list} role="grid" aria-label="What is in the file" tabIndex={0} className="outline-none">
          {used.items.map((item) => (
            <IncomingLine
              key={item.key}
              item={item}
              choice={used.choiceOf(item)}
              isFixed={busy || isRestore}
              onChoose={(choice) => used.choose(item, choice)}
            />
          ))}
        </div>
        {used.items.length === 0 && <p className="px-[14px] py-6 text-soft">Nothing of this name is among them.</p>}
        {used.more && (
          <div className="px-[14px] py-3">
            <Button onClick={used.more}>Show more of {used.total}</Button>
          </div>
        )}
      </div>
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        <Key>↑ ↓</Key> groups <Key>Ctrl Enter</Key> bring in <Key>Escape</Key> leave it; all of it is one step, taken
        back by one undo
      </p>
    </section>
  );
  return (
    <Panels
      id="incoming"
      panes={[
        { id: "groups", label: "How things stand", size: 200, min: 160, children: side },
        { id: "items", label: "What is in the file", min: 480, children: main },
      ]}
    />
  );
}

interface GroupProps {
  readonly words: string;
  readonly count: number;
  readonly isOn: boolean;
  readonly onChoose: () => void;
}

const GroupLine = ({ words, count, isOn, onChoose }: GroupProps) => (
  <button
    type="button"
    aria-pressed={isOn}
    onClick={onChoose}
    className={cx(
      "flex h-[34px] items-center gap-2 border-l-[3px] px-[14px] text-left",
      isOn ? "border-live bg-live-tint" : "border-transparent hover:bg-sunk",
    )}
  >
    <span className="min-w-0 flex-1 truncate">{words}</span>
    <span className="num text-soft">{count}</span>
  </button>
);
