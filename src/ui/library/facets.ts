import { KIND_NAMES, type PresetKind } from "@/core/presets/preset";
import { FAMILY_NAMES, type Family } from "@/core/processors/model";
import type { Field } from "@/core/search/fields";

/** The fields by which a sound can be told from others, in the order in which they stand beside the list. */
export const FACETS: readonly (readonly [field: Field, heading: string])[] = [
  ["kind", "Kind"],
  ["tag", "Tagged"],
  ["measured", "Measured as"],
  ["for", "For"],
  ["artist", "Artist"],
  ["family", "Plugins of the family"],
  ["has", "Plugin inside"],
  ["client", "Client"],
  ["song", "Song"],
  ["project", "Project"],
  ["performer", "Performer"],
  ["instrument", "Instrument"],
  ["mic", "Microphone"],
  ["maker", "Maker"],
  ["rating", "Rating"],
  ["year", "Year"],
  ["used", "Used in a project"],
  ["pack", "Pack"],
];

/** A value as a person reads it. */
export const wordOf = (field: Field, value: string): string => {
  switch (field) {
    case "kind":
      return KIND_NAMES[value as PresetKind] ?? value;
    case "family":
      return FAMILY_NAMES[value as Family] ?? value;
    case "rating":
      return value === "0" ? "not rated" : `${value} of 5`;
    case "used":
      return value === "changed" ? "yes, changed since" : value;
    default:
      return value;
  }
};
