/** What is done when one field of a card is changed, as the history tells it. */
const VERBS: Readonly<Record<string, string>> = {
  name: "Rename",
  short: "Give a short name to",
  folder: "Move",
  alsoIn: "File",
  tags: "Tag",
  rating: "Rate",
};

/** "Tag" where only the tags are changed; "Change" for other fields and for several. */
export function verbFor(fields: readonly string[]): string {
  // Who moves may take what refers to it along.
  const meant = new Set(fields.includes("folder") ? fields.filter((field) => field !== "alsoIn") : fields);
  const [only] = meant;
  return (meant.size === 1 && VERBS[only ?? ""]) || "Change";
}
