import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import Ajv2020, { type ValidateFunction } from "ajv/dist/2020";
import addFormats from "ajv-formats";
import { strFromU8, unzipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type DocumentKind, SCHEMAS } from "@/core/archive/schemas";
import { INCLUDED } from "@/core/packs/included";
import { loadDemo } from "@/demo/load";
import { commit } from "../use-cases/projects/commit";
import { installPack } from "../use-cases/packs";
import { makeFolder } from "../use-cases/filing/folders";
import { type Machine, startMachine } from "../use-cases/archive/testing";
import { value } from "../testing";

const FORMATS = join(import.meta.dirname, "../../../docs/formats");

let machine: Machine;
let files: Record<string, Uint8Array>;

beforeAll(async () => {
  machine = await startMachine("2026-11-25T08:00:00.000Z");
  await installPack(machine.context, INCLUDED);
  await loadDemo(machine.context);
  value(await makeFolder(machine.context, { name: "One more", parent: null }));
  value(
    await commit(machine.context, "neap-tide", ({ project }) =>
      Promise.resolve({
        label: "Tempo",
        steps: [{ id: "t", kind: "setDetail", detail: "tempo", from: project.tempo, to: 99 }],
      }),
    ),
  );
  files = unzipSync(readFileSync(await machine.archive()));
}, 60_000);

afterAll(() => machine.close());

/** Of which kind each file of an archive is, by its path. */
const KINDS: readonly (readonly [path: RegExp, kind: DocumentKind])[] = [
  [/^manifest\.json$/, "manifest"],
  [/^folders\.json$/, "folders"],
  [/^settings\.json$/, "settings"],
  [/^media\.json$/, "media"],
  [/^presets\/.*\.jsonl$/, "preset"],
  [/^(projects|drafts)\/.*\.history\.jsonl$/, "project-change"],
  [/^(projects|drafts)\/.*\.json$/, "project"],
  [/^history\/library\.jsonl$/, "library-entry"],
  [/^history\/wrap-ups\.jsonl$/, "wrap-up"],
];

const published = (kind: string): object =>
  JSON.parse(readFileSync(join(FORMATS, `${kind}.schema.json`), "utf8")) as object;

describe("The published schemas", () => {
  it("are those by which documents are checked: `npm run schemas` writes them", () => {
    expect(readdirSync(FORMATS).sort()).toEqual(
      Object.keys(SCHEMAS)
        .map((kind) => `${kind}.schema.json`)
        .sort(),
    );
    for (const [kind, schema] of Object.entries(SCHEMAS))
      expect(published(kind), kind).toEqual(JSON.parse(JSON.stringify(schema())));
  });

  it("describe every document of the sample world and of the pack", () => {
    const ajv = new Ajv2020({ strict: false, allErrors: false });
    addFormats(ajv);
    const validators = new Map<string, ValidateFunction>();
    const seen = new Set<string>();
    for (const [path, bytes] of Object.entries(files)) {
      const kind = KINDS.find(([of]) => of.test(path))?.[1];
      if (!kind) continue;
      const validate = validators.get(kind) ?? ajv.compile(published(kind));
      validators.set(kind, validate);
      seen.add(kind);
      const text = strFromU8(bytes);
      for (const document of path.endsWith(".jsonl") ? text.trimEnd().split("\n") : [text]) {
        const isOne = validate(JSON.parse(document));
        expect(isOne, `${path}: ${JSON.stringify(validate.errors?.[0])}`).toBe(true);
      }
    }
    expect([...seen].sort()).toEqual(
      Object.keys(SCHEMAS)
        .filter((kind) => kind !== "wrap-up")
        .sort(),
    );
  }, 60_000);

  it("know a document that is none", () => {
    const ajv = new Ajv2020({ strict: false });
    addFormats(ajv);
    const validate = ajv.compile(published("preset"));
    const [line] = strFromU8(files["presets/0001.jsonl"]!).split("\n");
    const preset = JSON.parse(line!) as { card: object };
    expect(validate(preset)).toBe(true);
    expect(validate({ ...preset, card: { ...preset.card, rating: 9 } })).toBe(false);
    expect(validate({ ...preset, mood: "dark" })).toBe(false);
  });
});
