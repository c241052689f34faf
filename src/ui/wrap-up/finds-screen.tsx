"use client";

import { type ReactNode, useEffect, useEffectEvent, useRef } from "react";
import type { Project } from "@/core/projects/project";
import { counted } from "@/core/names/count";
import { useActions } from "../actions/actions";
import { Key } from "../kit/bits";
import { Button } from "../kit/button";
import { StripMark } from "../kit/card-mark";
import { Panels } from "../kit/panels";
import { Toggle } from "../kit/toggle";
import { useAttempt } from "../kit/use-attempt";
import { FindLine } from "./find-line";
import { FindPane, HeardBeside } from "./find-pane";
import { type Block, workWords } from "./rows";
import { SeveralPane } from "./several-pane";
import { ALSO, type Also, type Findings } from "./use-findings";
import { useHand } from "./use-hand";

const ALSO_WORDS: Readonly<Record<Also, string>> = {
  plugins: "Plugins of chains",
  left: "Passed over then",
  kept: "In the library",
};

const saying = ({ filed }: Findings): string =>
  filed.length === 0 ? "File nothing" : `File ${counted(filed.length, "sound")}`;

interface Props {
  readonly title: string;
  readonly findings: Findings;
  readonly file: () => Promise<void>;
  /** Takes what was filed last back; null where nothing was. */
  readonly takeBack: (() => Promise<void>) | null;
  readonly leave: { readonly words: string; readonly go: () => void };
  /** Under the title: how much was found, and when it was looked through last. */
  readonly about: ReactNode;
  /** Above the list, over its whole width. */
  readonly over?: ReactNode;
  /** In place of the list where there is nothing in it. */
  readonly nothing: ReactNode;
  /** Below the list. */
  readonly more?: ReactNode;
  /** That everything was found in; null for several, of which each block is one. */
  readonly project: Project | null;
}

/** What was found, with its ticks, and beside it what is in hand; all of it is filed at once. */
export function FindsScreen({ title, findings, leave, about, over, nothing, more, project, ...does }: Props) {
  const { rows, blocks, isOn, edit } = findings;
  const group = "Wrap-up";
  const hand = useHand(rows, group);
  const { refusal, busy, attempt } = useAttempt();
  const list = useRef<HTMLDivElement>(null);
  const file = () => void attempt(does.file);
  const turn = () => {
    const on = !hand.all.every(isOn);
    edit(hand.all, () => ({ on }));
  };
  const toList = useEffectEvent(() => list.current?.focus());
  useEffect(() => toList(), []);
  useActions([
    { id: "leave", title: leave.words, group, keys: ["Escape"], run: leave.go },
    { id: "file", title: saying(findings), group, keys: ["Ctrl+Enter"], enabled: !busy, run: file },
    {
      id: "undo",
      title: "Take the wrap-up back",
      group,
      keys: ["Ctrl+Z"],
      past: true,
      enabled: does.takeBack !== null,
      run: () => void does.takeBack?.(),
    },
    {
      id: "tick",
      title: "Tick what is in hand, or not",
      group,
      keys: ["Enter"],
      enabled: hand.row !== null,
      run: turn,
    },
    ...hand.actions,
  ]);
  const table = (
    <section aria-label={title} className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none items-center gap-3 px-[14px] pt-[14px] pb-2">
        <h1 className="h1 truncate">{title}</h1>
        <span className="ml-auto flex flex-none gap-2">
          <Button onClick={leave.go}>{leave.words}</Button>
          <Button main disabled={busy} title="Ctrl Enter" onClick={file}>
            {busy ? "Filing…" : saying(findings)}
          </Button>
        </span>
      </header>
      <div className="flex flex-none flex-wrap items-center gap-x-4 gap-y-1 px-[14px] pb-3 text-soft">
        {about}
        <span className="ml-auto flex gap-4">
          {ALSO.filter((one) => findings.count(one) > 0).map((one) => (
            <Toggle
              key={one}
              label={`${ALSO_WORDS[one]}: ${findings.count(one)}`}
              on={findings.also[one]}
              onChange={(on) => findings.turn(one, on)}
            />
          ))}
        </span>
      </div>
      {over}
      {refusal && <div className="flex-none px-[14px] pb-2">{refusal}</div>}
      {rows.length === 0 ? (
        nothing
      ) : (
        // biome-ignore lint/a11y/useSemanticElements: a grid with ticks, not a table of figures
        <div
          ref={list}
          role="grid"
          aria-label="What was found"
          aria-multiselectable
          tabIndex={0}
          className="relative min-h-0 flex-1 overflow-auto border-edge border-t outline-none"
        >
          {blocks.map((block) => (
            <div key={block.id} role="rowgroup" aria-label={block.title}>
              <BlockHead block={block} />
              {block.rows.map((row) => (
                <FindLine key={row.key} saysStrip={block.strip === null} {...{ row, findings, hand }} />
              ))}
            </div>
          ))}
        </div>
      )}
      {more}
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        <Key>↑ ↓</Key> finds <Key>Shift ↓</Key> several <Key>Enter</Key> tick <Key>Space</Key> listen <Key>X</Key> A and
        the nearest <Key>Ctrl Enter</Key> file
      </p>
    </section>
  );
  return (
    <Panels
      id="wrap-up"
      panes={[
        { id: "finds", label: "What was found", min: 480, children: table },
        {
          id: "find",
          label: "What is in hand",
          size: 360,
          min: 300,
          children: (
            <div className="flex h-full flex-col bg-card">
              {hand.row && hand.all.length === 1 && <FindPane row={hand.row} findings={findings} project={project} />}
              {hand.all.length > 1 && <SeveralPane rows={hand.all} findings={findings} />}
              {hand.row && hand.all.length > 1 && <HeardBeside key={hand.row.key} row={hand.row} />}
            </div>
          ),
        },
      ]}
    />
  );
}

function BlockHead({ block: { title, strip, rows } }: { readonly block: Block }) {
  return (
    <div className="flex items-center gap-2 bg-sunk px-[14px] py-[5px]">
      {strip && <StripMark kind={strip.kind} icon={strip.look.icon} colour={strip.look.colour} />}
      <span className="name truncate">{title}</span>
      <span className="ml-auto flex-none text-small text-soft">{strip && rows[0] ? workWords(rows[0]) : ""}</span>
    </div>
  );
}
