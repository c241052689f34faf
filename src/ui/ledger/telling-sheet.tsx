"use client";

import { DetailsSheet } from "../projects/details-sheet";
import { MixSheet } from "../projects/mix-sheet";
import type { OpenProps } from "./ledger-header";
import { StarterSheet } from "./starter-sheet";

/** What of a whole project is being told: what it is called, and as what it is kept. */
export type Telling = "details" | "starter" | "mix";

interface Props extends OpenProps {
  readonly telling: Telling;
  readonly onTell: (next: Telling | null) => void;
}

export function TellingSheet({ project, editing, telling, onTell }: Props) {
  const onClose = () => onTell(null);
  switch (telling) {
    case "details":
      return <DetailsSheet project={project} editing={editing} onClose={onClose} onStarter={() => onTell("starter")} />;
    case "mix":
      return <MixSheet project={project} at={null} onClose={onClose} />;
    case "starter":
      return <StarterSheet project={project} onClose={onClose} />;
  }
}
