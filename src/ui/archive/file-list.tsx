"use client";

import { useQueryClient } from "@tanstack/react-query";
import { Download, Trash2 } from "lucide-react";
import { useState } from "react";
import * as archive from "@/clients/archive";
import { KEYS } from "@/clients/events";
import type { ArchiveFile } from "@/contracts/archive";
import { Empty } from "../kit/bits";
import { Button } from "../kit/button";
import { cx } from "../kit/class-names";
import { formatMoment } from "../kit/dates";
import { orSay, say } from "../kit/say";
import { useSingly } from "../kit/use-singly";
import { KIND_WORDS, sizeWords } from "./words";

const GRID = "grid grid-cols-[minmax(120px,1fr)_84px_150px_auto] items-center gap-[10px] px-[14px]";

interface Props {
  readonly files: readonly ArchiveFile[];
  readonly chosen: string | null;
  readonly onChoose: (name: string) => void;
  readonly onLook: (file: ArchiveFile) => Promise<void>;
}

/** What lies in the archive, the newest first. */
export function FileList({ files, chosen, onChoose, onLook }: Props) {
  const [sure, setSure] = useState<string | null>(null);
  if (files.length === 0)
    return (
      <Empty title="Nothing is archived yet" className="flex-1">
        <p>
          An archive holds the whole library, or a part of it, in one file that can be read without Diathesis. It lies
          in the data folder until you take it elsewhere.
        </p>
      </Empty>
    );
  return (
    // biome-ignore lint/a11y/useSemanticElements: rows that are chosen, not a table of figures
    <div role="grid" aria-label="Files" className="relative min-h-0 flex-1 overflow-auto border-edge border-t">
      {files.map((file) => (
        <FileLine
          key={file.name}
          file={file}
          isChosen={file.name === chosen}
          isSure={file.name === sure}
          onChoose={() => onChoose(file.name)}
          onLook={() => orSay(onLook(file))}
          onAsk={(asked) => setSure(asked ? file.name : null)}
        />
      ))}
    </div>
  );
}

interface LineProps {
  readonly file: ArchiveFile;
  readonly isChosen: boolean;
  readonly isSure: boolean;
  readonly onChoose: () => void;
  readonly onLook: () => void;
  readonly onAsk: (sure: boolean) => void;
}

function FileLine({ file: { name, kind, bytes, at }, isChosen, isSure, onChoose, onLook, onAsk }: LineProps) {
  const queries = useQueryClient();
  const singly = useSingly();
  // A second press while it goes is for nothing else.
  const remove = () =>
    singly(async () => {
      await archive.removeFile(name);
      say(`${name} is gone for good`);
      await queries.invalidateQueries({ queryKey: [...KEYS.settings, "archive"] });
      onAsk(false);
    });
  return (
    // The keys are those of the screen.
    // biome-ignore lint/a11y/useKeyWithClickEvents: arrow keys choose lines
    <div
      role="row"
      tabIndex={-1}
      aria-selected={isChosen}
      onClick={onChoose}
      className={cx(GRID, "min-h-11 border-rule border-b", isChosen && "row-chosen")}
    >
      <span role="gridcell" className="grid min-w-0">
        <span className="name truncate">
          {kind === "backup" ? `Backup of ${formatMoment(at)}` : name.replace(/\.(zip|db)$/, "")}
        </span>
        <span className="text-small text-soft">{KIND_WORDS[kind]}</span>
      </span>
      <span role="gridcell" className="num text-right">
        {sizeWords(bytes)}
      </span>
      <span role="gridcell" className="text-right text-soft">
        {formatMoment(at)}
      </span>
      <span role="gridcell" className="flex justify-end gap-1">
        {isSure ? (
          <>
            <Button small onClick={() => onAsk(false)}>
              Keep it
            </Button>
            <Button small className="text-alert" onClick={() => orSay(remove())}>
              Take it away for good
            </Button>
          </>
        ) : (
          <>
            {kind !== "copy" && (
              <Button small aria-label={`Look at ${name}`} onClick={onLook}>
                Look at it
              </Button>
            )}
            <a
              href={archive.fileAddress(name)}
              download={name}
              aria-label={`Save ${name} elsewhere`}
              title="Save it elsewhere"
              className="grid size-6 place-items-center text-soft hover:text-ink"
            >
              <Download size={16} strokeWidth={1.75} aria-hidden="true" />
            </a>
            <Button small plain aria-label={`Take ${name} away`} title="Take it away" onClick={() => onAsk(true)}>
              <Trash2 size={16} strokeWidth={1.75} aria-hidden="true" />
            </Button>
          </>
        )}
      </span>
    </div>
  );
}
