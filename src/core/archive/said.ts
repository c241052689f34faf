/** What a value says, as text: two that say the same are the same, in whichever order their fields were written. */
export const saidBy = (value: unknown): string =>
  JSON.stringify(value, (_, field: unknown) =>
    typeof field === "object" && field !== null && !Array.isArray(field)
      ? Object.fromEntries(Object.entries(field).sort(([a], [b]) => (a < b ? -1 : 1)))
      : field,
  );
