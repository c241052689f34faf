import type { Project } from "@/core/projects/project";
import type { Strip } from "@/core/strips/strip";
import type { Turning } from "../use-turning";

/** What every card of a cell is made from. */
export interface CardProps {
  readonly project: Project;
  readonly strip: Strip;
  /** The strips that it sets: this one, or all that are chosen. */
  readonly strips: readonly string[];
  readonly turning: Turning;
  readonly onClose: () => void;
}
