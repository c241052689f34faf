/** New numbers of versions, by preset and by the number of before. */
export type NewNumbers = ReadonlyMap<string, ReadonlyMap<number, number>>;

type Json = unknown;

/**
 * A document in which every mention of a version goes by its new number, wherever it stands: what a thing was loaded from, a starting
 * point, a step of a log. What mentions none is the same object.
 */
export function renumberVersions<T>(document: T, numbers: NewNumbers): T {
  return (numbers.size === 0 ? document : renumbered(document, numbers)) as T;
}

function renumbered(value: Json, numbers: NewNumbers): Json {
  if (Array.isArray(value)) {
    const items = value.map((item) => renumbered(item, numbers));
    return items.every((item, at) => item === value[at]) ? value : items;
  }
  if (typeof value !== "object" || value === null) return value;
  const fields = Object.entries(value).map(([name, field]) => [name, renumbered(field, numbers)] as const);
  const of = "preset" in value && typeof value.preset === "string" ? numbers.get(value.preset) : undefined;
  const next = of ? withNumbers(value, fields, of) : fields;
  return next.every(([name, field]) => field === (value as Record<string, Json>)[name])
    ? value
    : Object.fromEntries(next);
}

/** The step that made a version of an earlier one names that by its bare number, too. */
function withNumbers(
  value: object,
  fields: readonly (readonly [string, Json])[],
  of: ReadonlyMap<number, number>,
): readonly (readonly [string, Json])[] {
  const isMadeOf = "kind" in value && value.kind === "version";
  return fields.map(([name, field]) =>
    typeof field === "number" && (name === "version" || (isMadeOf && (name === "from" || name === "to")))
      ? [name, of.get(field) ?? field]
      : [name, field],
  );
}
