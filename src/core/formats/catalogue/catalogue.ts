import Papa from "papaparse";
import { parseWith } from "../../documents/problem";
import type { Card, PresetKind } from "../../presets/preset";
import { CardSchema } from "../../presets/schema";
import { type Result, fail, ok } from "../../result";

/*
 * The catalogue of a library as comma-separated values (RFC 4180), to be read and worked on in a table, and read back. A cell that a
 * table would take for a formula stands behind an apostrophe, which is taken away again.
 */

/** A sound as the catalogue has it. */
export interface Listed {
  readonly id: string;
  readonly kind: PresetKind;
  readonly card: Card;
  /** The names of the folders that it lies in, one within the other; empty for none. */
  readonly folder: string;
  readonly version: number;
  readonly savedAt: string;
}

/** What can be changed in a table and read back. */
export interface CatalogueFields {
  readonly name: string;
  readonly folder: string;
  readonly tags: readonly string[];
  readonly purpose: string;
  readonly rating: number;
  readonly notes: string;
}

export type FieldName = keyof CatalogueFields;

/** The columns that are read back, by what each is called. */
const FIELDS: readonly FieldName[] = ["name", "folder", "tags", "purpose", "rating", "notes"];

/** One sound of a catalogue that is read back; only the fields that it has a column for. */
export interface CatalogueRow {
  readonly id: string;
  /** Its line in the file, the first after the head being 2. */
  readonly line: number;
  readonly fields: Partial<CatalogueFields>;
}

export interface ReadCatalogue {
  readonly rows: readonly CatalogueRow[];
  /** Columns that say nothing that could be changed. */
  readonly passedOver: readonly string[];
  readonly problems: readonly string[];
}

const originOf = ({ origin }: Card) => ({
  artist: origin.artist ?? "",
  client: origin.client ?? "",
  song: origin.song ?? "",
  project: origin.project ?? "",
  strip: origin.strip ?? "",
  performer: origin.performer ?? "",
  instrument: origin.instrument ?? "",
  microphone: origin.microphone ?? "",
  date: origin.date ?? "",
  take: origin.take ?? "",
});

const lineOf = ({ id, kind, card, folder, version, savedAt }: Listed) => ({
  id,
  name: card.name,
  kind,
  folder,
  tags: card.tags.join("; "),
  purpose: card.purpose,
  rating: card.rating,
  notes: card.notes,
  ...originOf(card),
  version,
  saved: savedAt.slice(0, 10),
});

/** What a table takes for a formula: these signs in front, and a plus or minus that begins no number; and what looks as if it was kept from that. */
const FORMULA = /^'*(?:[=@\t\r]|[+-](?!(?:\d+\.?\d*|\.\d+)$))/;

/** A byte order mark: by it programs know that the text is UTF-8. */
const MARK = "\ufeff";

export const writeCatalogue = (listed: readonly Listed[]): string =>
  MARK +
  Papa.unparse(listed.map(lineOf), { escapeFormulae: FORMULA, newline: "\r\n" }) +
  (listed.length > 0 ? "\r\n" : "");

/** The text of a file, by its mark, as UTF-8, or else as what older tables write (Windows-1252). */
export function decodeTable(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

const plain = (cell: string): string => (cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell);

const splitTags = (cell: string): readonly string[] => [
  ...new Set(
    cell
      .split(";")
      .map((tag) => tag.trim())
      .filter((tag) => tag !== ""),
  ),
];

function fieldsIn(cells: Readonly<Record<string, string>>): Partial<Record<FieldName, unknown>> {
  const fields: Partial<Record<FieldName, unknown>> = {};
  for (const name of FIELDS) {
    const cell = cells[name];
    if (cell === undefined) continue;
    const text = plain(cell);
    if (name === "tags") fields.tags = splitTags(text);
    else if (name === "rating") fields.rating = text.trim() === "" ? 0 : Number(text.replace(",", "."));
    else fields[name] = name === "notes" ? text.replaceAll("\r\n", "\n") : text.trim();
  }
  return fields;
}

/** Cards are checked by their own schema, but for the folder, which is named here. */
const CHECKED = CardSchema.pick({ name: true, tags: true, purpose: true, rating: true, notes: true }).partial();

function rowOf(cells: Readonly<Record<string, string>>, line: number): Result<CatalogueRow, string> {
  const id = plain(cells["id"] ?? "").trim();
  if (id === "") return fail(`Line ${line} has no id.`);
  const { folder, ...others } = fieldsIn(cells);
  const checked = parseWith(CHECKED, others);
  if (!checked.ok) return fail(`Line ${line}: ${checked.error.path}: ${checked.error.message}`);
  const fields = { ...checked.value, ...(typeof folder === "string" ? { folder } : {}) };
  return ok({
    id,
    line,
    fields: Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)),
  });
}

/**
 * Reads a catalogue back. The error is a sentence: no table, or one without the column of ids. A line that cannot be read is told, and all
 * others are read.
 */
export function readCatalogue(text: string): Result<ReadCatalogue, string> {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(MARK, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (head) => head.trim().toLowerCase(),
  });
  const columns = meta.fields ?? [];
  if (!columns.includes("id"))
    return fail("This table has no column “id”, by which its lines are known. Take a catalogue that was written here.");
  if (!FIELDS.some((name) => columns.includes(name)))
    return fail(`This table has none of the columns ${FIELDS.join(", ")}; there is nothing to be read.`);
  const rows: CatalogueRow[] = [];
  const problems: string[] = [];
  const lines = new Map<string, number>();
  for (const [at, cells] of data.entries()) {
    const row = rowOf(cells, at + 2);
    const before = row.ok ? lines.get(row.value.id) : undefined;
    if (!row.ok) problems.push(row.error);
    else if (before !== undefined) problems.push(`Line ${at + 2} has the id of line ${before}.`);
    else {
      rows.push(row.value);
      lines.set(row.value.id, at + 2);
    }
  }
  const known = new Set<string>(FIELDS);
  return ok({ rows, passedOver: columns.filter((name) => !known.has(name) && name !== "id"), problems });
}
