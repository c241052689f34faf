/** What is done when one field of a card is changed, as the history tells it. */
const VERBS: Readonly<Record<string, string>> = { name: "Rename", folder: "Move", tags: "Tag", rating: "Rate" };

/** "Tag" where only the tags are changed; "Change" for other fields and for several. */
export function verbFor(fields: readonly string[]): string {
  const [only] = new Set(fields);
  return (new Set(fields).size === 1 && VERBS[only ?? ""]) || "Change";
}
