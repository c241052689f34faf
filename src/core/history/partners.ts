import type { Project } from "../projects/project";
import { faceOfStrip } from "../recall/match/alike";
import { matchStrips } from "../recall/match/match";
import type { Partners } from "./beside";

/** Which strip of one project each of another stands for, found as a plan finds them. Law: no strip stands for two. */
export function partnersBetween(left: Project, right: Project): Partners {
  const faces = (project: Project) => project.strips.map((strip) => faceOfStrip(project, strip));
  return new Map(
    matchStrips(faces(left), faces(right)).flatMap(({ saved, strip }) =>
      strip === null ? [] : [[strip, saved] as const],
    ),
  );
}
