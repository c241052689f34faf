import * as api from "@/clients/api";
import type { PresetRow } from "@/contracts/records";
import { type Overtaken, findOvertaken } from "@/core/library/overtaken";
import type { Card } from "@/core/presets/preset";

/** What is to become of a card. */
export type CardOf = (preset: PresetRow) => Partial<Card>;

/** What was to be changed has been changed by another meanwhile. Done to these rows, it stands in place of that. */
class OvertakenError extends api.InWords {
  constructor(
    readonly rows: readonly PresetRow[],
    words: string,
  ) {
    super(words);
  }
}

/** The cards as they stand by now, where an error says that they were overtaken; else as they were. */
export const rowsBy = (error: unknown, presets: readonly PresetRow[]): readonly PresetRow[] =>
  error instanceof OvertakenError ? presets.map((p) => error.rows.find((r) => r.id === p.id) ?? p) : presets;

/** In one short sentence each: what another has changed. */
const wordsOf = ({ field, now }: Overtaken): string =>
  field === "name" ? `It is called “${String(now)}” by now.` : `Its ${field} is another by now.`;

/**
 * Cards as they stand now, for a change that was thought of when they were as `seen`. Rejects with an `OvertakenError` where
 * the change would put away what another has done.
 */
export async function rowsByNow(seen: readonly PresetRow[], cardOf: CardOf): Promise<readonly PresetRow[]> {
  const { cards } = await api.listCards(seen.map(({ id }) => id));
  const now = new Map(cards.map((card) => [card.id, card]));
  const rows = seen.map((row) => ({ ...row, ...(now.get(row.id) ?? {}) }));
  for (const [at, row] of rows.entries()) {
    const before = seen[at]!;
    const [lost] = findOvertaken(cardOf(before), before.card, row.card);
    if (lost)
      throw new OvertakenError(
        rows,
        `“${before.card.name}” was changed elsewhere meanwhile. ${wordsOf(lost)} Save again to put yours in its place.`,
      );
  }
  return rows;
}
