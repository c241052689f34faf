import type { WordChange } from "@/contracts/library";
import { counted } from "@/core/names/count";
import { fold } from "@/core/names/words";
import { type CardFields, fieldsOf, type LibraryStep } from "@/core/library/step";
import { isAllBeside } from "@/core/packs/pack";
import { WORD_LISTS, type WordList, withWords } from "@/core/library/word-lists";
import type { Card } from "@/core/presets/preset";
import type { TermValue } from "@/core/search/query";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import { rowsInOrder } from "../../repositories/preset-lists";
import { takingTurns } from "../../turns";
import { fileAndTell } from "./entry";

/** What came of it: how many cards say it otherwise now, and how many of packs were left. */
export interface WordsChanged {
  readonly changed: number;
  readonly ofPacks: number;
}

/** Rows that are read in one go. */
const CHUNK = 500;

/** Letters of a line of a card, as its schema takes it. */
const LONGEST = 200;

const isTooLong = ({ purpose, origin }: CardFields): boolean =>
  [purpose, ...Object.values(origin ?? {})].some((line) => typeof line === "string" && line.length > LONGEST);

/** The numbers of all presets that say one of some words, in any field of a list. */
function rowsSaying({ search }: Context, list: WordList, words: readonly string[]): readonly number[] {
  const values = words.map((word): TermValue => ({ is: "exactly", text: fold(word) }));
  const rows = WORD_LISTS[list].fields.flatMap(
    (field) =>
      search.find({
        query: { words: [], not: [], terms: [{ field, not: false, values }], unclear: [] },
        folders: null,
        sort: "saved",
        after: null,
        limit: Number.MAX_SAFE_INTEGER,
      }).rows,
  );
  return [...new Set(rows)];
}

const namesOf = (words: readonly string[]): string =>
  words.length === 1 ? `“${words[0] ?? ""}”` : `“${words[0] ?? ""}” and ${counted(words.length - 1, "other")}`;

function labelOf({ list, from, to }: WordChange): string {
  if (to === null) return `Take the ${WORD_LISTS[list].one} ${namesOf(from)} away`;
  return from.length === 1 ? `Call ${namesOf(from)} “${to}”` : `Merge ${namesOf(from)} into “${to}”`;
}

/** Calls some words of a list otherwise on every card that says them, merges them into one, or takes them away: one entry of the log. */
export function changeWords(context: Context, asked: WordChange): Promise<Outcome<WordsChanged>> {
  const { list, from, to } = asked;
  const words = new Set(from);
  let ofPacks = 0;
  const make = async (tx: Executor) => {
    const steps: LibraryStep[] = [];
    const turn = takingTurns();
    const rows = rowsSaying(context, list, from);
    for (let at = 0; at < rows.length; at += CHUNK)
      for (const { id, card, pack } of await rowsInOrder(tx, rows.slice(at, at + CHUNK))) {
        await turn();
        const next = withWords(card, list, words, to);
        if (!next) continue;
        if (isTooLong(next))
          refuse("refused", `“${card.name}” would say more than ${LONGEST} letters in one line.`, { path: "to" });
        if (pack !== null && !isAllBeside(next)) ofPacks += 1;
        else
          steps.push({ kind: "card", preset: id, from: fieldsOf(card, Object.keys(next) as (keyof Card)[]), to: next });
      }
    if (steps.length === 0 && ofPacks === 0)
      refuse("refused", `No card says ${namesOf(from)} any more.`, { path: "from" });
    if (steps.length === 0) refuse("refused", "Only sounds of packs say it; they stay as they are.", { path: "from" });
    return { label: labelOf(asked), steps };
  };
  return fileAndTell(context, make, (_, { steps }) => ({ changed: steps.length, ofPacks }));
}
