"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import * as archive from "@/clients/archive";
import { KEYS } from "@/clients/events";
import type { ArchiveFile, ArchiveState, Job, JobResult, Wish } from "@/contracts/archive";
import { useActions } from "../actions/actions";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Panels } from "../kit/panels";
import { say } from "../kit/say";
import { useAttempt } from "../kit/use-attempt";
import { LibrarySheets } from "../library/sheets";
import { useArriving, arrive } from "./arriving";
import { FileList } from "./file-list";
import { PartSheet } from "./part-sheet";
import { Progress, shareOf } from "../kit/progress";
import { SidePane } from "./side-pane";
import { useJob, useUnderWay } from "./use-job";
import { sizeWords } from "./words";

/** The archive: what is kept safe of the library, where it lies, and the ways out and in. */
export function Archive() {
  const state = useQuery({ queryKey: [...KEYS.settings, "archive"], queryFn: archive.archiveState });
  if (state.error && !state.data)
    return (
      <Empty page title="The archive cannot be looked at">
        <p role="alert">{state.error.message}</p>
      </Empty>
    );
  return state.data ? <OpenArchive state={state.data} /> : <Loading what="Looking at the archive" />;
}

const wroteWords = (result: JobResult): string =>
  result.kind === "wrote" ? `Wrote ${result.file}, ${sizeWords(result.bytes)}, read back and whole` : "Done";

function useWriting() {
  const queries = useQueryClient();
  const { job, run, stop } = useJob();
  const { refusal, busy, attempt } = useAttempt();
  const follow = (begin: () => Promise<{ job: Job }>) =>
    void attempt(async () => {
      say(wroteWords(await run(begin)));
    }).finally(() => queries.invalidateQueries({ queryKey: [...KEYS.settings, "archive"] }));
  useUnderWay("", (running) => follow(() => Promise.resolve({ job: running })));
  return {
    job,
    stop,
    refusal,
    busy,
    write: (wish: Wish) => follow(() => archive.beginArchive(wish)),
    backUp: () => follow(archive.beginBackup),
  };
}

function OpenArchive({ state }: { readonly state: ArchiveState }) {
  const router = useRouter();
  const writing = useWriting();
  const arriving = useArriving((a) => a.arriving);
  const [cursor, setCursor] = useState<string | null>(null);
  const [isChoosing, setIsChoosing] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const { files } = state;
  const at = Math.max(
    0,
    files.findIndex(({ name }) => name === cursor),
  );
  const chosen = files[at];
  const move = (to: number) => setCursor(files[Math.max(0, Math.min(files.length - 1, to))]?.name ?? null);
  const choose = () => chooser.current?.click();
  const look = async ({ name }: ArchiveFile) => {
    const { incoming } = await archive.beginIncoming({ file: name });
    router.push(`/archive/incoming/${incoming.id}`);
  };
  const isOpenable = chosen !== undefined && chosen.kind !== "copy";
  const group = "Archive";
  useActions([
    {
      id: "archive-all",
      title: "Archive the library",
      group,
      keys: ["A"],
      enabled: !writing.busy,
      run: () => writing.write({ kind: "all" }),
    },
    {
      id: "archive-part",
      title: "Archive a part of the library…",
      group,
      keys: ["P"],
      enabled: !writing.busy,
      run: () => setIsChoosing(true),
    },
    { id: "bring-in", title: "Bring in a file…", group, keys: ["I"], run: choose },
    { id: "back-up", title: "Back up now", group, keys: ["B"], enabled: !writing.busy, run: writing.backUp },
    {
      id: "look",
      title: "Look at the file, and bring in what is wanted",
      group,
      keys: ["Enter"],
      enabled: isOpenable,
      run: () => chosen && void look(chosen),
    },
    { id: "next", title: "Next file", group, keys: ["ArrowDown"], keyOnly: true, run: () => move(at + 1) },
    { id: "before", title: "The file before", group, keys: ["ArrowUp"], keyOnly: true, run: () => move(at - 1) },
  ]);
  const list = (
    <section aria-label="Archives and backups" className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none flex-wrap items-center gap-x-3 gap-y-2 px-[14px] pt-[14px] pb-3">
        <h1 className="h1">Archive</h1>
        <span className="ml-auto flex flex-none gap-2">
          <Button onClick={choose}>Bring in a file…</Button>
          <Button disabled={writing.busy} onClick={() => setIsChoosing(true)}>
            Archive a part…
          </Button>
          <Button main disabled={writing.busy} onClick={() => writing.write({ kind: "all" })}>
            Archive the library
          </Button>
        </span>
        <input
          ref={chooser}
          type="file"
          accept=".zip,.json"
          aria-label="A file to bring in"
          className="sr-only"
          tabIndex={-1}
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            target.value = "";
            if (file) void arrive(file, (address) => router.push(address));
          }}
        />
      </header>
      {arriving && <Progress words={`Sending ${arriving.name}`} share={arriving.share} />}
      {writing.job && <Progress words={writing.job.title} share={shareOf(writing.job)} onStop={writing.stop} />}
      {writing.refusal && <div className="flex-none px-[14px] pb-2">{writing.refusal}</div>}
      <FileList files={files} chosen={chosen?.name ?? null} onChoose={setCursor} onLook={look} />
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        <Key>↑ ↓</Key> files <Key>Enter</Key> look at one <Key>A</Key> archive the library <Key>I</Key> bring in a file,
        or drop it on the window
      </p>
      {isChoosing && (
        <PartSheet
          onClose={() => setIsChoosing(false)}
          onChosen={(wish) => {
            setIsChoosing(false);
            writing.write(wish);
          }}
        />
      )}
      <LibrarySheets />
    </section>
  );
  return (
    <Panels
      id="archive"
      panes={[
        { id: "files", label: "Archives and backups", min: 480, children: list },
        {
          id: "side",
          label: "Backups, room and order",
          size: 380,
          min: 320,
          children: <SidePane state={state} busy={writing.busy} onBackUp={writing.backUp} />,
        },
      ]}
    />
  );
}
