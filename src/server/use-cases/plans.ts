import type { PlanBody, PlanRequest } from "@/contracts/projects";
import { findContentProblem, completeContent } from "@/core/presets/whole";
import { applySteps } from "@/core/recall/apply";
import { planRecall } from "@/core/recall/plan";
import type { RecallRequest, RecallSource } from "@/core/recall/plan-shape";
import { sentenceOf } from "@/core/recall/sentences";
import { contentMeant } from "@/core/presets/meant";
import { isStrips } from "@/core/presets/preset";
import { busesAround, nameOfStrips, takeStrips } from "@/core/presets/save";
import { type Project, findStrip } from "@/core/projects/project";
import type { Step } from "@/core/recall/steps";
import { ok } from "@/core/result";
import type { Context } from "../store/context";
import { type Outcome, failure } from "../failure";
import { findFiled, findVersion } from "../repositories/presets";
import { findProject } from "../repositories/projects";
import { getRevision } from "./projects/history";
import { getProject } from "./projects/read";

type SourceRequest = PlanRequest["requests"][number]["source"];

/** For which project a plan is asked, and where in what is asked something stands. */
interface Asking {
  readonly id: string;
  readonly path: string;
}

type OfProject = Extract<SourceRequest, { readonly project: string }>;

/** Strips of a project as they are, or were. They go by the name of the strip, or by that of the project. */
async function findStripsOf(context: Context, source: OfProject, { path, id }: Asking): Promise<Outcome<RecallSource>> {
  const { revision } = source;
  const found =
    revision === undefined
      ? await getProject(context, source.project)
      : await getRevision(context, source.project, revision);
  if (!found.ok) return { ok: false, error: { ...found.error, path: `${path}.project` } };
  const { project } = found.value;
  const strips = source.strips.flatMap((id) => findStrip(project, id) ?? []);
  const gone = source.strips.find((id) => !findStrip(project, id));
  if (gone !== undefined)
    return failure("notFound", `The strip “${gone}” is not in “${project.name}”.`, { path: `${path}.strips` });
  return ok({
    content: takeStrips(project, strips),
    from: null,
    name: nameOfStrips(project, strips),
    tempo: project.tempo,
    // Of its own past the buses are what they are by now.
    ...(project.id === id ? { isOfSame: true } : { around: busesAround(project, strips) }),
  });
}

async function findSource(context: Context, source: SourceRequest, asking: Asking): Promise<Outcome<RecallSource>> {
  const { path } = asking;
  if ("project" in source) return findStripsOf(context, source, asking);
  if ("content" in source) {
    const problem = findContentProblem(source.content);
    if (problem) return failure("notUnderstood", problem.message, { path: `${path}.content.${problem.path}` });
    return ok({ content: completeContent(source.content), from: null, name: source.name });
  }
  const { db } = context;
  const preset = await findFiled(db, source.preset);
  if (!preset) return failure("notFound", `There is no preset “${source.preset}” here.`, { path: `${path}.preset` });
  const version = source.version ?? preset.version;
  const saved = await findVersion(db, preset.id, version);
  if (!saved)
    return failure("notFound", `“${preset.card.name}” has no version ${version}.`, { path: `${path}.version` });
  const { name } = preset.card;
  const tempo = saved.content.kind === "mix" ? { tempo: saved.content.tempo } : {};
  const from = { preset: preset.id, version, name };
  if (source.strip === undefined) return ok({ content: saved.content, from, name, ...tempo });
  const content = contentMeant(saved.content, source);
  const strip = isStrips(saved.content) ? saved.content.strips.find(({ id }) => id === source.strip) : undefined;
  if (!content || !strip)
    return failure("notFound", `Version ${version} of “${name}” does not hold that strip.`, { path: `${path}.strip` });
  return ok({ content, from: { ...from, strip: strip.id }, name: strip.name, ...tempo });
}

/** Each step in words, told from the project as the steps before it leave it. */
function tell(project: Project, steps: readonly Step[]): string[] {
  let now = project;
  return steps.map((step) => {
    const sentence = sentenceOf(step, now);
    const next = applySteps(now, [step]);
    if (next.ok) now = next.value;
    return sentence;
  });
}

/** Plans a recall for the newest revision, or refuses when it is asked for another. Changes nothing. */
export async function planFor(context: Context, id: string, request: PlanRequest): Promise<Outcome<PlanBody>> {
  const record = await findProject(context.db, id);
  if (!record) return failure("notFound", `There is no project “${id}” here.`);
  if (request.at !== undefined && request.at !== record.revision)
    return failure("stale", `“${record.project.name}” is at revision ${record.revision} by now, not ${request.at}.`, {
      path: "at",
      detail: { revision: record.revision },
    });
  const requests: RecallRequest[] = [];
  for (const [at, { source, ...rest }] of request.requests.entries()) {
    const found = await findSource(context, source, { id, path: `requests[${at}].source` });
    if (!found.ok) return found;
    const gone = "strips" in rest.targets ? rest.targets.strips.find((s) => !findStrip(record.project, s)) : undefined;
    if (gone !== undefined)
      return failure("refused", `The strip “${gone}” is not in “${record.project.name}”.`, {
        path: `requests[${at}].targets.strips`,
      });
    requests.push({ ...rest, source: found.value });
  }
  const plan = planRecall({
    project: record.project,
    requests,
    except: request.except ?? [],
    answers: request.answers ?? {},
    mint: context.mint,
  });
  return ok({ plan: plan as PlanBody["plan"], revision: record.revision, sentences: tell(record.project, plan.steps) });
}
