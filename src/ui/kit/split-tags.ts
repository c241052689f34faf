/** The tags of a line that is typed, each once. */
export const splitTags = (tags: string): string[] => [
  ...new Set(
    tags
      .split(/[,;]/)
      .map((t) => t.trim())
      .filter((t) => t !== ""),
  ),
];
