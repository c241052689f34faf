import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import type { Content } from "./preset";

/** Of the rule below; it stands before every fingerprint, so that a changed rule is never mistaken for a changed sound. */
const RULE = 2;

/** What has no sound: names, origins, the look. */
const SILENT_FIELDS = new Set(["label", "name", "from", "look", "schema"]);

/** Fields that name another thing of the document, or the thing itself. */
const REFERENCES = new Set(["key", "id", "strip", "node"]);

const ROUNDING = 1e6;

type Json = unknown;

/** Keys and ids by the order in which they are met, so that two copies of one sound are one. */
function renumber() {
  const numbers = new Map<string, number>();
  return (key: string): number => {
    const known = numbers.get(key);
    if (known !== undefined) return known;
    numbers.set(key, numbers.size + 1);
    return numbers.size;
  };
}

function reduce(value: Json, number: (key: string) => number): Json {
  if (typeof value === "number") return Math.round(value * ROUNDING) / ROUNDING + 0;
  if (Array.isArray(value)) return value.map((v) => reduce(v, number));
  if (typeof value !== "object" || value === null) return value;
  if ("external" in value) return { kind: (value as { kind?: Json }).kind, name: (value as { name?: Json }).name };
  const reduced: Record<string, Json> = {};
  // In the order of the canonical form: how a document is written down has no say in what is met first.
  for (const field of Object.keys(value).sort()) {
    if (SILENT_FIELDS.has(field)) continue;
    const v = (value as Readonly<Record<string, Json>>)[field];
    reduced[field] = REFERENCES.has(field) && typeof v === "string" ? number(v) : reduce(v, number);
  }
  return reduced;
}

/**
 * What sounds, as canonical JSON (RFC 8785): keys renumbered in order of traversal, names and origins left out, numbers
 * rounded to 1e-6. JSON as the language writes it is canonical where the fields stand in order, and none is called by a
 * number; a test holds it against a canonicaliser.
 */
export const soundingText = (content: Content): string => JSON.stringify(reduce(content, renumber()));

/** SHA-256 of what sounds. Sounds that are set the same have the same fingerprint, whatever they are called. */
export const fingerprint = (content: Content): string =>
  `${RULE}:${bytesToHex(sha256(utf8ToBytes(soundingText(content))))}`;
