import equal from "fast-deep-equal";
import type { CatalogueChange, CataloguePreview } from "@/contracts/archive";
import {
  type CatalogueRow,
  type Listed,
  decodeTable,
  readCatalogue,
  writeCatalogue,
} from "@/core/formats/catalogue/catalogue";
import { homeOf } from "@/core/library/filed-in";
import { type CardFields, type LibraryStep, cardStep } from "@/core/library/step";
import { counted } from "@/core/names/count";
import { isAllBeside } from "@/core/packs/pack";
import { ok } from "@/core/result";
import { type Statements, readingAside, statementsOf } from "../../data/statements";
import { readCard } from "../../data/stored";
import type { PresetTable } from "../../data/tables";
import { type Outcome, failure } from "../../failure";
import { presetOf } from "../filing/steps";
import type { Context } from "../../store/context";
import { transact } from "../../store/transact";
import { stepByStep } from "../../store/work";
import { takingTurns } from "../../turns";
import { type Filing, keepEntry } from "../filing/entry";
import { folderAtPath } from "../filing/folders";
import { applyStep } from "../filing/steps";
import { ownFolders, pathsIn } from "./compare";

type Row = Pick<PresetTable, "id" | "kind" | "card" | "version" | "saved_at" | "pack">;

/** Every sound that is not in the bin, as a table. */
export function catalogueOf({ folder }: Pick<Context, "folder">): { readonly name: string; readonly body: string } {
  const { statement, close } = readingAside(folder);
  try {
    const pathOf = pathsIn(ownFolders(statement));
    const rows = statement<Row>(
      "SELECT id, kind, card, version, saved_at, pack FROM presets WHERE binned_at IS NULL ORDER BY sort_name, row",
    ).all();
    const listed = rows.map(({ id, kind, card: text, version, saved_at }): Listed => {
      const card = readCard(text);
      return { id, kind, card, folder: pathOf(card.folder), version, savedAt: saved_at };
    });
    return { name: "catalogue.csv", body: writeCatalogue(listed) };
  } finally {
    close();
  }
}

/** Changes that are shown of a catalogue that is read back; all are counted. */
const MOST_SHOWN = 500;
const MOST_PROBLEMS = 100;

interface Planned {
  readonly changes: readonly CatalogueChange[];
  readonly problems: readonly string[];
}

const textOf = (value: string | number | readonly string[]): string =>
  typeof value === "object" ? value.join("; ") : String(value);

const FIELDS = ["name", "tags", "purpose", "rating", "notes"] as const;

/** What a line of the table changes of a card; nothing where it says what stands there. */
function changeOf(
  row: CatalogueRow,
  { card: text, pack }: Row,
  pathOf: (folder: string | null) => string,
): CatalogueChange | string | null {
  const card = readCard(text);
  const fields = FIELDS.flatMap((name) => {
    const to = row.fields[name];
    return to === undefined || equal(to, card[name]) ? [] : [{ name, from: textOf(card[name]), to: textOf(to) }];
  });
  const [here, wanted] = [pathOf(card.folder), row.fields.folder];
  const moved = wanted === undefined || wanted === here ? [] : [{ name: "folder" as const, from: here, to: wanted }];
  const all = [...fields, ...moved];
  if (all.length === 0) return null;
  if (pack !== null && !isAllBeside(Object.fromEntries(all.map(({ name }) => [name, null]))))
    return `Line ${row.line}: “${card.name}” belongs to a pack; of it only folder, tags and rating can be changed.`;
  return { id: row.id, line: row.line, called: card.name, fields: all };
}

async function plan(statement: Statements, rows: readonly CatalogueRow[]): Promise<Planned> {
  const turn = takingTurns();
  const pathOf = pathsIn(ownFolders(statement));
  const find = statement<Row>(
    "SELECT id, kind, card, version, saved_at, pack FROM presets WHERE id = ? AND binned_at IS NULL",
  );
  const changes: CatalogueChange[] = [];
  const problems: string[] = [];
  for (const row of rows) {
    await turn();
    const found = find.get(row.id);
    const change = found
      ? changeOf(row, found, pathOf)
      : `Line ${row.line}: there is no sound with the id “${row.id}” here.`;
    if (typeof change === "string") problems.push(change);
    else if (change) changes.push(change);
  }
  return { changes, problems };
}

function read(bytes: Uint8Array): Outcome<{
  readonly rows: readonly CatalogueRow[];
  readonly passedOver: readonly string[];
  readonly problems: readonly string[];
}> {
  const catalogue = readCatalogue(decodeTable(bytes));
  return catalogue.ok ? ok(catalogue.value) : failure("refused", catalogue.error, { path: "body" });
}

/** What a table would change of the cards, line by line; nothing is changed. */
export async function previewCatalogue(
  { folder }: Pick<Context, "folder">,
  bytes: Uint8Array,
): Promise<Outcome<CataloguePreview>> {
  const given = read(bytes);
  if (!given.ok) return given;
  const { statement, close } = readingAside(folder);
  try {
    const { changes, problems } = await plan(statement, given.value.rows);
    return ok({
      changes: changes.slice(0, MOST_SHOWN),
      total: changes.length,
      lines: given.value.rows.length,
      passedOver: [...given.value.passedOver],
      problems: [...given.value.problems, ...problems].slice(0, MOST_PROBLEMS),
      undo: null,
    });
  } finally {
    close();
  }
}

/** What a line changes, as it stands in a card. */
function fieldsOf({ fields }: CatalogueChange, row: CatalogueRow): CardFields {
  const names = fields.flatMap(({ name }) => (name === "folder" ? [] : [name]));
  return Object.fromEntries(names.map((name) => [name, row.fields[name] ?? null]));
}

interface Applying {
  readonly context: Context;
  readonly filing: Filing;
  readonly at: string;
  readonly steps: LibraryStep[];
}

/** The folder at a path; what is missing of it is made. */
async function folderFor({ context, filing, at, steps }: Applying, path: string): Promise<string | null> {
  if (path === "") return null;
  const { folder, steps: making } = await folderAtPath(context, filing.tx, path, null);
  for (const step of making) {
    await applyStep(filing.tx, step, { at, note: filing.note, context });
    steps.push(step);
  }
  return folder;
}

async function apply(applying: Applying, change: CatalogueChange, row: CatalogueRow): Promise<void> {
  const { context, filing, at, steps } = applying;
  const { card } = await presetOf(filing.tx, change.id);
  const moved = change.fields.find(({ name }) => name === "folder");
  const home = moved ? homeOf(card, await folderFor(applying, moved.to)) : {};
  const step = cardStep(change.id, card, { ...fieldsOf(change, row), ...home });
  await applyStep(filing.tx, step, { at, note: filing.note, context });
  steps.push(step);
}

/** Reads a table back into the cards, as one change that one undo takes back; folders that are missing are made. */
export async function bringCatalogue(context: Context, bytes: Uint8Array): Promise<Outcome<CataloguePreview>> {
  const given = read(bytes);
  if (!given.ok) return given;
  const byId = new Map(given.value.rows.map((row) => [row.id, row]));
  return transact(context, async (tx, note) => {
    const { changes, problems } = await plan(await statementsOf(tx), given.value.rows);
    const filing: Filing = { context, tx, note };
    const applying: Applying = { context, filing, at: context.now().toISOString(), steps: [] };
    const turn = takingTurns();
    await stepByStep(changes.length, async (onStep) => {
      for (const change of changes) {
        onStep();
        await apply(applying, change, byId.get(change.id)!);
        await turn();
      }
    });
    const label = `Read a catalogue: ${counted(changes.length, "card")}`;
    const undo = changes.length === 0 ? null : await keepEntry(filing, { label, steps: applying.steps });
    return {
      changes: changes.slice(0, MOST_SHOWN),
      total: changes.length,
      lines: given.value.rows.length,
      passedOver: [...given.value.passedOver],
      problems: [...given.value.problems, ...problems].slice(0, MOST_PROBLEMS),
      undo,
    };
  });
}
