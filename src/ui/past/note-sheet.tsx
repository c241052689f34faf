"use client";

import { useQuery } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { orSay, say } from "../kit/say";
import { Sheet } from "../kit/sheet";

interface Props {
  readonly project: { readonly id: string; readonly name: string };
  /** The two moments, by the changes that they come after, and how they are called. */
  readonly from: number;
  readonly to: number;
  readonly words: { readonly from: string; readonly to: string };
  readonly onClose: () => void;
}

/** What was done between two moments, as text to be copied. */
export function NoteSheet({ project, from, to, words, onClose }: Props) {
  const { data, error } = useQuery({
    queryKey: [...KEYS.project(project.id), "note", from, to],
    queryFn: () => api.noteBetween(project.id, { from, to }),
  });
  const text = data ? [`${project.name}`, `From: ${words.from}`, `To: ${words.to}`, "", data.text].join("\n") : null;
  const copy = () => {
    if (text !== null) orSay(navigator.clipboard.writeText(text).then(() => say("Copied")));
  };
  return (
    <Sheet open onClose={onClose} title="What was done, in words" className="w-[640px]">
      {error && <p role="alert">{error.message}</p>}
      {text === null && !error && <Loading what="Writing it down" />}
      {text !== null && (
        <textarea
          readOnly
          aria-label="What was done"
          value={text}
          rows={16}
          className="resize-none rounded-card border border-bound bg-ground px-[10px] py-2"
        />
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Close</Button>
        <Button main disabled={text === null} onClick={copy}>
          Copy
        </Button>
      </div>
    </Sheet>
  );
}
