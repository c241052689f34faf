import { describe, expect, it } from "vitest";
import { z } from "zod";
import { ContentSchema } from "../presets/schema";
import { CONTENT_MIGRATIONS } from "../presets/migrations";
import { PROJECT_MIGRATIONS } from "../projects/migrations";
import { ProjectSchema } from "../projects/schema";
import { type Migration, migrate } from "./migrate";
import { parseWith } from "./problem";

describe("migrating", () => {
  const lifts: Migration[] = [({ title, ...rest }) => ({ ...rest, name: title }), (d) => ({ ...d, tags: [] })];
  it("lifts a document from any earlier schema, step by step, and leaves the newest alone", () => {
    expect(migrate({ schema: 1, title: "x" }, lifts)).toEqual({ ok: true, value: { schema: 3, name: "x", tags: [] } });
    expect(migrate({ schema: 2, name: "x" }, lifts)).toEqual({ ok: true, value: { schema: 3, name: "x", tags: [] } });
    expect(migrate({ schema: 3, name: "x" }, lifts)).toEqual({ ok: true, value: { schema: 3, name: "x" } });
  });
  it.each([[null], [[]], [{}], [{ schema: 0 }], [{ schema: 1.5 }], [{ schema: "1" }], [{ schema: 4 }]])(
    "refuses %j in words",
    (document) => {
      const result = migrate(document, lifts);
      expect(!result.ok && result.error).toMatch(/\.$/);
    },
  );

  /** One document of each earlier schema; a migration without one fails here. */
  const EARLIER: readonly (readonly [
    name: string,
    migrations: readonly Migration[],
    documents: readonly unknown[],
    schema: z.ZodType,
  ])[] = [
    ["a preset's content", CONTENT_MIGRATIONS, [], ContentSchema],
    ["a project", PROJECT_MIGRATIONS, [], ProjectSchema],
  ];
  for (const [name, migrations, documents, schema] of EARLIER)
    it(`every migration of ${name} is exercised, and gives what today's schema reads`, () => {
      expect(documents).toHaveLength(migrations.length);
      for (const document of documents) {
        const lifted = migrate(document, migrations);
        expect(lifted.ok && schema.safeParse(lifted.value).success).toBe(true);
      }
    });
});

describe("a problem", () => {
  const schema = z.strictObject({ strips: z.array(z.strictObject({ level: z.number() })) });
  it("names the field", () => {
    expect(parseWith(schema, { strips: [{ level: 1 }, { level: "x" }] })).toMatchObject({
      ok: false,
      error: { path: "strips[1].level" },
    });
    expect(parseWith(schema, { strips: [{ level: 1, mood: 2 }] })).toMatchObject({
      ok: false,
      error: { path: "strips[0].mood", message: "No such field is known here" },
    });
    expect(parseWith(schema, 4, ["body"])).toMatchObject({ ok: false, error: { path: "body" } });
    expect(parseWith(schema, { strips: [] })).toEqual({ ok: true, value: { strips: [] } });
  });
  it("a number that is none is refused", () => {
    for (const level of [Number.NaN, Number.POSITIVE_INFINITY])
      expect(parseWith(schema, { strips: [{ level }] }).ok).toBe(false);
  });
});
