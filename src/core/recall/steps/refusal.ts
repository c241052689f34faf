import { MOST_MIXES, MOST_NODES, MOST_RELIEFS, MOST_SENDS, MOST_STRIPS, MOST_VIEWS } from "../../documents/limits";

/** What a step can be about, as a refusal names it. */
export type Subject = "plugin" | "lane" | "layer" | "strip" | "send" | "switch";

/** Why a step cannot be taken. */
export type Refusal =
  /** What it comes from is not what stands there. `what`: "the level". */
  | { readonly why: "changed"; readonly what: string }
  | { readonly why: "missing"; readonly what: Subject; readonly key: string }
  | { readonly why: "elsewhere"; readonly what: "plugin" | "strip" | "send" }
  | { readonly why: "taken"; readonly what: "key" | "id"; readonly key: string }
  | { readonly why: "tooMany"; readonly what: keyof typeof MOST }
  /** It is for one thing and brings another. */
  | { readonly why: "mismatch"; readonly key: string; readonly brings: string }
  /** It would stand where nothing of its kind may; `text` says why. */
  | { readonly why: "misplaced"; readonly text: string }
  | { readonly why: "nameless" };

const MOST = {
  plugins: `a chain holds ${MOST_NODES} plugins`,
  strips: `a project has ${MOST_STRIPS} strips`,
  reliefs: `${MOST_RELIEFS} reliefs are remembered`,
  mixes: `of a project ${MOST_MIXES} mixes are kept`,
  views: `of a project ${MOST_VIEWS} views are kept`,
  sends: `a strip has ${MOST_SENDS} sends`,
};

/** The sentence that tells a refusal, in full; `strip`: the name of the strip that it happened on. */
export function refusalWords(refusal: Refusal, strip: string | null): string {
  const words = wordsOf(refusal);
  return strip === null ? `${words[0]!.toUpperCase()}${words.slice(1)}` : `${strip}: ${words}`;
}

function wordsOf(refusal: Refusal): string {
  switch (refusal.why) {
    case "changed":
      return `${refusal.what} has changed since.`;
    case "missing":
      return refusal.what === "switch"
        ? `there is nothing called “${refusal.key}” to switch.`
        : `the ${refusal.what} “${refusal.key}” is not here.`;
    case "elsewhere":
      return `the ${refusal.what} stands elsewhere now.`;
    case "taken":
      return `the ${refusal.what} “${refusal.key}” is used already.`;
    case "tooMany":
      return `${MOST[refusal.what]} at the most.`;
    case "mismatch":
      return `the step is for “${refusal.key}” and places “${refusal.brings}”.`;
    case "misplaced":
      return refusal.text;
    case "nameless":
      return "a section has a name.";
  }
}
