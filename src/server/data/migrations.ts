import { deflateRawSync } from "node:zlib";
import type { Knex } from "knex";

export interface NamedMigration {
  readonly name: string;
  readonly up: (db: Knex) => Promise<void>;
  readonly down: (db: Knex) => Promise<void>;
}

const forwardOnly = () =>
  Promise.reject(new Error("Migrations go forward only; take the copy that was made beforehand."));

/**
 * Append only: what has been applied somewhere is never edited. Each holds all that it needs, for good: today's code means
 * something else tomorrow. What is derived from documents is made anew once after all of them: see `deriveAgain`.
 */
export const MIGRATIONS: readonly NamedMigration[] = [
  {
    name: "001-library-and-projects",
    up: async (db) => {
      for (const statement of FIRST.split(";").map((s) => s.trim())) if (statement !== "") await db.raw(statement);
    },
    down: forwardOnly,
  },
  {
    name: "002-media",
    up: (db) => db.raw(MEDIA),
    down: forwardOnly,
  },
  { name: "003-inside", up: addInside, down: forwardOnly },
  { name: "004-library-log", up: (db) => db.raw(LIBRARY_LOG), down: forwardOnly },
  {
    name: "005-settings",
    up: (db) =>
      db.raw(
        "CREATE TABLE settings (id INTEGER PRIMARY KEY CHECK (id = 1), revision INTEGER NOT NULL, body TEXT NOT NULL)",
      ),
    down: forwardOnly,
  },
  {
    name: "006-merged",
    up: (db) => db.raw("ALTER TABLE presets ADD COLUMN merged_into TEXT"),
    down: forwardOnly,
  },
  {
    name: "007-found-and-held",
    up: (db) =>
      db.raw(
        "CREATE TABLE preset_holds (held TEXT NOT NULL, preset INTEGER NOT NULL REFERENCES presets(row), PRIMARY KEY (held, preset)) WITHOUT ROWID",
      ),
    down: forwardOnly,
  },
  // Fingerprints were made anew; see `deriveAgain`, which does so now.
  { name: "008-fingerprints", up: () => Promise.resolve(), down: forwardOnly },
  {
    // A change of a card looked through a whole table for its rows; nothing reads the one of the tags.
    name: "009-rows-of-a-card",
    up: async (db) => {
      await db.schema.dropTable("preset_tags");
      await db.raw("CREATE INDEX preset_holds_by_preset ON preset_holds (preset)");
    },
    down: forwardOnly,
  },
  {
    // What hid in a circle, in something that is gone or in something that is hidden itself stands by itself again.
    name: "010-closed-and-unhidden",
    up: async (db) => {
      await db.raw("ALTER TABLE library_log ADD COLUMN closed INTEGER NOT NULL DEFAULT 0");
      await db.raw(`
        UPDATE presets SET merged_into = NULL, binned_at = NULL
        WHERE merged_into IS NOT NULL
          AND merged_into NOT IN (SELECT id FROM presets WHERE merged_into IS NULL)
      `);
      // What is added is merged in small steps once all is quiet; only far beyond that in the middle of a write.
      await db.raw("INSERT INTO preset_search (preset_search, rank) VALUES ('automerge', 0)");
      await db.raw("INSERT INTO preset_search (preset_search, rank) VALUES ('crisismerge', 1000)");
      await db.raw("CREATE INDEX presets_by_host ON presets (merged_into) WHERE merged_into IS NOT NULL");
    },
    down: forwardOnly,
  },
  {
    // A strip is a row of its own: what is changed on one of two hundred is written by itself, and each can be found.
    name: "011-strips",
    up: async (db) => {
      await db.raw(`
        CREATE TABLE project_strips (
          row INTEGER PRIMARY KEY,
          project TEXT NOT NULL REFERENCES projects(id),
          strip TEXT NOT NULL,
          body TEXT NOT NULL,
          face TEXT NOT NULL,
          UNIQUE (project, strip)
        )
      `);
      await db.raw("ALTER TABLE projects ADD COLUMN starter INTEGER NOT NULL DEFAULT 0");
      // What is no whole document stays as it is, to be told of where it is opened.
      const whole = "json_valid(d.body) AND json_type(d.body, '$.strips') = 'array'";
      await db.raw(`
        INSERT OR IGNORE INTO project_strips (project, strip, body, face)
        SELECT p.id, json_extract(s.value, '$.id'), s.value, '{}'
        FROM projects p JOIN documents d ON d.id = p.document, json_each(d.body, '$.strips') s
        WHERE ${whole}
        ORDER BY p.rowid, s.key
      `);
      await db.raw(`
        UPDATE documents AS d
        SET body = json_set(
          body,
          '$.strips',
          (SELECT json_group_array(json_extract(value, '$.id')) FROM json_each(d.body, '$.strips'))
        )
        WHERE id IN (SELECT document FROM projects) AND ${whole}
      `);
    },
    down: forwardOnly,
  },
  {
    // Notes are searched, too. The words come folded: the letters that count as one are ours to say.
    name: "012-notes-searched",
    up: async (db) => {
      await db.raw("DROP TABLE preset_search");
      await db.raw(`
        CREATE VIRTUAL TABLE preset_search USING fts5(
          name, tags, purpose, origin, notes,
          content='', contentless_delete=1, tokenize="unicode61 remove_diacritics 0 categories 'L* N* Co'", prefix='1 2 3'
        )
      `);
      await db.raw("INSERT INTO preset_search (preset_search, rank) VALUES ('automerge', 0)");
      await db.raw("INSERT INTO preset_search (preset_search, rank) VALUES ('crisismerge', 1000)");
    },
    down: forwardOnly,
  },
  {
    // In which window something was done, and, in the library, to what.
    name: "013-who-did-what",
    up: async (db) => {
      await db.raw("ALTER TABLE library_log ADD COLUMN window TEXT");
      await db.raw("ALTER TABLE library_log ADD COLUMN about TEXT");
      await db.raw("ALTER TABLE revisions ADD COLUMN window TEXT");
    },
    down: forwardOnly,
  },
  {
    // The card of a pack's preset as it came: what the person rates, tags and files stands in `card`, beside it.
    name: "014-beside-packs",
    up: async (db) => {
      await db.raw("ALTER TABLE presets ADD COLUMN pack_card TEXT");
      await db.raw("UPDATE presets SET pack_card = card WHERE pack IS NOT NULL");
    },
    down: forwardOnly,
  },
  {
    name: "015-loudness",
    up: (db) => db.raw("CREATE TABLE loudness (fingerprint TEXT PRIMARY KEY, lufs REAL) WITHOUT ROWID"),
    down: forwardOnly,
  },
  {
    name: "016-references",
    up: async (db) => {
      await db.raw(
        "CREATE TABLE preset_references (folder TEXT NOT NULL, preset INTEGER NOT NULL, PRIMARY KEY (folder, preset)) WITHOUT ROWID",
      );
      await db.raw("CREATE INDEX preset_references_by_preset ON preset_references (preset)");
    },
    down: forwardOnly,
  },
  {
    // What each change of a project concerned; some of its moments are kept whole.
    name: "017-moments",
    up: async (db) => {
      await db.raw("ALTER TABLE revisions ADD COLUMN about TEXT");
      await db.raw(
        "CREATE TABLE moments (id INTEGER PRIMARY KEY, project TEXT NOT NULL REFERENCES projects(id), n INTEGER NOT NULL, body TEXT NOT NULL, UNIQUE (project, n))",
      );
      await db.raw("ALTER TABLE projects ADD COLUMN kept_size INTEGER NOT NULL DEFAULT 0");
      await db.raw("ALTER TABLE projects ADD COLUMN unkept INTEGER NOT NULL DEFAULT 0");
    },
    down: forwardOnly,
  },
  {
    name: "018-binned-projects",
    up: async (db) => {
      await db.raw("ALTER TABLE projects ADD COLUMN binned_at TEXT");
      await packHistory(db);
    },
    down: forwardOnly,
  },
  {
    // When a project was wrapped up, what was passed over then, and how that is taken back.
    name: "019-wrap-ups",
    up: async (db) => {
      await db.raw(
        "CREATE TABLE wrap_ups (id INTEGER PRIMARY KEY, project TEXT NOT NULL REFERENCES projects(id), at TEXT NOT NULL, passed_over TEXT NOT NULL, log INTEGER, revision INTEGER)",
      );
      await db.raw("CREATE INDEX wrap_ups_by_project ON wrap_ups (project)");
    },
    down: forwardOnly,
  },
  {
    // When a card, a place in the bin, a folder was changed last, and what a version was made of: by these, two libraries that went
    // their own ways meet again.
    name: "020-meeting-again",
    up: async (db) => {
      await db.raw("ALTER TABLE presets ADD COLUMN filed_at TEXT NOT NULL DEFAULT ''");
      await db.raw("UPDATE presets SET filed_at = coalesce(binned_at, saved_at)");
      await db.raw("ALTER TABLE folders ADD COLUMN changed_at TEXT NOT NULL DEFAULT '2026-01-01T00:00:00.000Z'");
      await db.raw("ALTER TABLE preset_versions ADD COLUMN based_on INTEGER");
    },
    down: forwardOnly,
  },
];

/** Moments take a tenth of the room when they are packed, and what a change concerned less than half without names of fields. */
async function packHistory(db: Knex): Promise<void> {
  await db.raw(`
    UPDATE revisions SET about = json_array(
      (SELECT json_group_array(json_array(json_extract(value, '$.id'), json_extract(value, '$.name')))
       FROM json_each(about, '$.strips')),
      json_extract(about, '$.parts'),
      json_extract(about, '$.presets')
    )
    WHERE about IS NOT NULL AND json_valid(about)
  `);
  await db.raw("ALTER TABLE moments RENAME TO moments_before");
  await db.raw(
    "CREATE TABLE moments (id INTEGER PRIMARY KEY, project TEXT NOT NULL REFERENCES projects(id), n INTEGER NOT NULL, packed BLOB NOT NULL, UNIQUE (project, n))",
  );
  const kept = await db.raw<{ id: number; project: string; n: number }[]>("SELECT id, project, n FROM moments_before");
  for (const { id, project, n } of kept) {
    const [row] = await db.raw<{ body: string }[]>("SELECT body FROM moments_before WHERE id = ?", [id]);
    const packed = deflateRawSync(row!.body);
    await db.raw("INSERT INTO moments (project, n, packed) VALUES (?, ?, ?)", [project, n, packed]);
    await db.raw("UPDATE projects SET kept_size = ? WHERE id = ?", [packed.length, project]);
  }
  await db.raw("DROP TABLE moments_before");
}

/** What was done to cards, folders and the bin, in steps that can be taken back. */
const LIBRARY_LOG = `
  CREATE TABLE library_log (
    n INTEGER PRIMARY KEY AUTOINCREMENT,
    at TEXT NOT NULL,
    label TEXT NOT NULL,
    steps TEXT NOT NULL,
    undoes INTEGER,
    redoes INTEGER
  )
`;

/** What is inside each preset and which pack it came with: an index is built without opening a document. */
async function addInside(db: Knex): Promise<void> {
  await db.raw(
    'ALTER TABLE presets ADD COLUMN inside TEXT NOT NULL DEFAULT \'{"names":[],"models":[],"families":[],"makers":[]}\'',
  );
  await db.raw("ALTER TABLE presets ADD COLUMN pack TEXT");
}

/** Sounds of the person's own, each once, by what is in it. */
const MEDIA = `
  CREATE TABLE media (
    hash TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    seconds REAL NOT NULL,
    added_at TEXT NOT NULL,
    bytes BLOB NOT NULL
  )
`;

/*
 * Documents stand apart from the rows that lists scan. A preset's row number is its number in the search index, which
 * holds no text of its own.
 */
const FIRST = `
  CREATE TABLE documents (id INTEGER PRIMARY KEY, body TEXT NOT NULL);

  CREATE TABLE folders (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    parent TEXT REFERENCES folders(id)
  );
  CREATE UNIQUE INDEX folders_by_place ON folders (coalesce(parent, ''), name);

  CREATE TABLE presets (
    row INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    kind TEXT NOT NULL,
    folder TEXT REFERENCES folders(id),
    sort_name TEXT NOT NULL,
    card TEXT NOT NULL,
    card_revision INTEGER NOT NULL,
    version INTEGER NOT NULL,
    saved_at TEXT NOT NULL,
    used_at TEXT,
    touched_at TEXT NOT NULL,
    binned_at TEXT
  );
  CREATE INDEX presets_by_touch ON presets (touched_at DESC, row DESC) WHERE binned_at IS NULL;
  CREATE INDEX presets_by_name ON presets (sort_name, row) WHERE binned_at IS NULL;
  CREATE INDEX presets_by_folder ON presets (folder) WHERE binned_at IS NULL;

  CREATE TABLE preset_tags (
    preset INTEGER NOT NULL REFERENCES presets(row),
    tag TEXT NOT NULL,
    PRIMARY KEY (tag, preset)
  ) WITHOUT ROWID;

  CREATE TABLE preset_versions (
    preset TEXT NOT NULL REFERENCES presets(id),
    version INTEGER NOT NULL,
    document INTEGER NOT NULL REFERENCES documents(id),
    fingerprint TEXT NOT NULL,
    saved_at TEXT NOT NULL,
    name TEXT,
    PRIMARY KEY (preset, version)
  ) WITHOUT ROWID;
  CREATE INDEX versions_by_fingerprint ON preset_versions (fingerprint);

  CREATE VIRTUAL TABLE preset_search USING fts5(
    name, tags, purpose, origin,
    content='', contentless_delete=1, tokenize="unicode61 remove_diacritics 2", prefix='1 2 3'
  );

  CREATE TABLE projects (
    id TEXT PRIMARY KEY,
    kind TEXT NOT NULL CHECK (kind IN ('project', 'draft')),
    name TEXT NOT NULL,
    artist TEXT NOT NULL,
    client TEXT NOT NULL,
    song TEXT NOT NULL,
    tempo REAL NOT NULL,
    sample_rate INTEGER NOT NULL,
    strips INTEGER NOT NULL,
    revision INTEGER NOT NULL,
    changed_at TEXT NOT NULL,
    draft_preset TEXT,
    draft_version INTEGER,
    document INTEGER NOT NULL REFERENCES documents(id)
  );

  CREATE TABLE revisions (
    project TEXT NOT NULL REFERENCES projects(id),
    n INTEGER NOT NULL,
    at TEXT NOT NULL,
    label TEXT NOT NULL,
    steps TEXT NOT NULL,
    undoes INTEGER,
    redoes INTEGER,
    PRIMARY KEY (project, n)
  ) WITHOUT ROWID;

  CREATE TABLE uses (
    project TEXT NOT NULL REFERENCES projects(id),
    strip TEXT NOT NULL,
    preset TEXT NOT NULL,
    version INTEGER NOT NULL,
    PRIMARY KEY (preset, project, strip)
  ) WITHOUT ROWID;
  CREATE INDEX uses_by_project ON uses (project);

  CREATE TABLE changes (
    seq INTEGER PRIMARY KEY AUTOINCREMENT,
    at TEXT NOT NULL,
    records TEXT NOT NULL
  )
`;
