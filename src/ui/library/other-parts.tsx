import { type SavedStrip, describeParts } from "@/core/strips/strip";

/** What a saved strip holds beside its inserts, each part with what it is set to. */
export function OtherParts({ strip }: { readonly strip: SavedStrip }) {
  const others = describeParts(strip).filter(({ part }) => part !== "inserts");
  if (others.length === 0) return null;
  return (
    <dl className="grid grid-cols-[92px_minmax(0,1fr)] gap-x-3 pb-2">
      {others.map(({ part, title, words }) => (
        <div key={part} className="contents">
          <dt className="text-soft">{title}</dt>
          <dd>{words}</dd>
        </div>
      ))}
    </dl>
  );
}
