import { findCompanions } from "@/core/projects/companions";
import type { Project } from "@/core/projects/project";
import { CompanionList } from "../kit/companion-list";
import type { Row } from "./rows";
import type { Findings } from "./use-findings";

interface Props {
  readonly project: Project;
  readonly found: Row;
  readonly findings: Findings;
}

/** Strips that belong with one that is kept; with any of them it is kept as a set. */
export function CompanionTicks({ project, found, findings }: Props) {
  const along = findings.companionsOf(found);
  const companions = findCompanions(project, [found.strip.id]);
  return (
    <CompanionList
      legend="Keep along with it, as a set"
      companions={companions}
      along={along}
      onAlong={(id, on) =>
        findings.edit([found], () => ({
          on: true,
          companions: on ? [...along, id] : along.filter((other) => other !== id),
        }))
      }
    />
  );
}
