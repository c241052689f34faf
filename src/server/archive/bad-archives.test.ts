import { mkdtempSync, readFileSync, readdirSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { createHash } from "node:crypto";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { execFileSync } from "node:child_process";
import { type Zippable, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { MANIFEST } from "@/core/archive/manifest";
import { loadDemo } from "@/demo/load";
import { takeFile } from "../use-cases/archive/take-file";
import { type Machine, everythingIn, startMachine } from "../use-cases/archive/testing";
import { writeArchive } from "./write-archive";
import { NotTaken } from "./zip-in";

let machine: Machine;
let folder: string;
let good: Buffer;
let files: Record<string, Uint8Array>;

beforeAll(async () => {
  machine = await startMachine("2026-11-25T08:00:00.000Z");
  await loadDemo(machine.context);
  folder = mkdtempSync(join(tmpdir(), "diathesis-bad-"));
  const file = await machine.archive();
  good = readFileSync(file);
  const { unzipSync } = await import("fflate");
  files = unzipSync(good);
});

afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  await machine.close();
});

const sumOf = (bytes: Uint8Array): string => createHash("sha256").update(bytes).digest("hex");

/** The archive with some files in place of others, and a manifest that vouches for all of them. */
function archived(others: Zippable & Record<string, Uint8Array>, more: object = {}): Uint8Array {
  const all = { ...files, ...others };
  const manifest = JSON.parse(Buffer.from(files[MANIFEST]!).toString()) as object;
  const entries = Object.entries(all)
    .filter(([path]) => path !== MANIFEST)
    .map(([path, bytes]) => ({ path, bytes: bytes.length, sha256: sumOf(bytes) }));
  return zipSync({ ...all, [MANIFEST]: Buffer.from(JSON.stringify({ ...manifest, entries, ...more })) }, { level: 1 });
}

/** What is said of a file; it must be refused with nothing changed, in the library or beside it. */
async function refusalOf(bytes: Uint8Array): Promise<string> {
  const file = join(folder, "given.zip");
  writeFileSync(file, bytes);
  const [before, beside] = [everythingIn(machine.folder), readdirSync(machine.folder)];
  try {
    const taken = await takeFile(machine.context, file, { called: "it" });
    return taken.ok ? "" : taken.error.message;
  } catch (error) {
    if (error instanceof NotTaken) return error.message;
    throw error;
  } finally {
    expect(everythingIn(machine.folder)).toEqual(before);
    expect(readdirSync(machine.folder)).toEqual(beside);
    expect(readdirSync(folder)).toEqual(["given.zip"]);
  }
}

/** Bytes in place of others of the same length, once; where they stand last with `last`. */
function patched(bytes: Buffer, from: string, to: string, where: "first" | "last" | "all" = "all"): Buffer {
  const copy = Buffer.from(bytes);
  const positions: number[] = [];
  for (let at = copy.indexOf(from); at >= 0; at = copy.indexOf(from, at + 1)) positions.push(at);
  for (const at of where === "all" ? positions : [positions.at(where === "first" ? 0 : -1)!])
    copy.write(to, at, "latin1");
  return copy;
}

describe("An archive that is damaged", () => {
  it.each([0.1, 0.5, 0.9, 0.999])("is refused when only a share of %f of it is there", async (share) => {
    expect(await refusalOf(good.subarray(0, Math.floor(good.length * share)))).toMatch(/cut short|damaged/);
  });

  it("is refused with a bad CRC, and with a bad byte anywhere in a document, which it names", async () => {
    const central = good.lastIndexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    const first = good.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    expect(central).toBeGreaterThan(first);
    const badCrc = Buffer.from(good);
    badCrc[first + 16]! ^= 0xff;
    expect(await refusalOf(badCrc)).toMatch(/“presets\/0001.jsonl” is damaged: its CRC/);
    for (const at of [500, 2000, 9000]) {
      const flipped = Buffer.from(good);
      flipped[at]! ^= 0x10;
      expect(await refusalOf(flipped)).toMatch(/“presets\/0001.jsonl” is/);
    }
  });

  it("is refused with a sum that is another", async () => {
    const manifest = JSON.parse(Buffer.from(files[MANIFEST]!).toString()) as {
      entries: { path: string; sha256: string }[];
    };
    const entries = manifest.entries.map((e) => (e.path === "folders.json" ? { ...e, sha256: "0".repeat(64) } : e));
    expect(await refusalOf(archived({}, { entries }))).toMatch(/“folders.json” is not what was archived: its SHA-256/);
  });
});

describe("What is no archive of ours", () => {
  it("is refused: another program's ZIP, a text, nothing at all", async () => {
    expect(await refusalOf(zipSync({ "project.xml": Buffer.from("<Project/>") }))).toMatch(/no archive of Diathesis/);
    expect(await refusalOf(Buffer.from("hello"))).toMatch(/neither an archive/);
    expect(await refusalOf(Buffer.alloc(0))).toMatch(/neither an archive/);
    expect(await refusalOf(Buffer.from("PK"))).toMatch(/no archive, or it is cut short/);
    const { [MANIFEST]: _, ...others } = files;
    expect(await refusalOf(zipSync(others))).toMatch(/“manifest.json” is missing/);
    expect(await refusalOf(zipSync({ ...files, [MANIFEST]: Buffer.from("{}") }))).toMatch(
      /“manifest.json” is not understood/,
    );
    expect(await refusalOf(zipSync({ ...files, [MANIFEST]: Buffer.from("{") }))).toMatch(/“manifest.json” is no JSON/);
  });

  it("is refused when a newer Diathesis wrote it", async () => {
    expect(await refusalOf(archived({}, { form: 2 }))).toMatch(/newer Diathesis/);
  });

  it("is refused when its manifest does not know a file, or one is missing", async () => {
    expect(await refusalOf(archived({ "more.json": Buffer.from("{}") }, {}))).toBe("");
    const manifest = JSON.parse(Buffer.from(files[MANIFEST]!).toString()) as { entries: object[] };
    expect(await refusalOf(archived({}, { entries: manifest.entries.slice(1) }))).toMatch(/does not know it/);
    const missing = { path: "gone.json", bytes: 1, sha256: "0".repeat(64) };
    expect(await refusalOf(archived({}, { entries: [...manifest.entries, missing] }))).toMatch(
      /“gone.json” is missing/,
    );
  });
});

describe("An archive that was made to do harm", () => {
  const named = (name: string): Buffer => {
    const place = "x".repeat(name.length);
    const bytes = Buffer.from(archived({ [place]: Buffer.from("{}") }));
    return patched(bytes, place, name);
  };

  it.each([
    ["../evil.json", /“\.\.\/evil\.json” is not read: its path leads out/],
    ["a/../../evil.js", /leads out/],
    ["/etc/evil.json", /absolute/],
    ["C:/evil.json", /absolute/],
    ["..\\evil.json", /backslash/],
  ])("has no file called %s", async (name, message) => {
    expect(await refusalOf(named(name))).toMatch(message);
  });

  it("has no file twice, nor two that differ in capitals only", async () => {
    const twice = Buffer.from(archived({ "abcd.json": Buffer.from("{}"), "abce.json": Buffer.from("{}") }));
    expect(await refusalOf(patched(twice, "abce.json", "abcd.json"))).toMatch(/“abcd.json” is in the archive twice/);
    expect(await refusalOf(patched(twice, "abce.json", "ABCD.json"))).toMatch(/differ only in capitals/);
  });

  it("has no bomb, and no ten million files", async () => {
    const bomb = archived({ "bomb.json": new Uint8Array(50_000_000) });
    expect(await refusalOf(bomb)).toMatch(/“bomb.json” is not read: unpacked it would take far more room/);
    // The list says so: nothing of it is read.
    const many = Buffer.from(good);
    const end = many.lastIndexOf(Buffer.from([0x50, 0x4b, 0x05, 0x06]));
    many.writeUInt16LE(0xfffe, end + 8);
    many.writeUInt16LE(0xfffe, end + 10);
    expect(await refusalOf(many)).toMatch(/damaged/);
  });

  it("says how many files there are before a single one is read", async () => {
    // With the extension for many, as other programs write it.
    const count = 10_000_000;
    const at = good.length;
    const record = Buffer.alloc(56);
    record.writeUInt32LE(0x06064b50, 0);
    record.writeBigUInt64LE(44n, 4);
    record.writeBigUInt64LE(BigInt(count), 24);
    record.writeBigUInt64LE(BigInt(count), 32);
    const locator = Buffer.alloc(20);
    locator.writeUInt32LE(0x07064b50, 0);
    locator.writeBigUInt64LE(BigInt(at), 8);
    locator.writeUInt32LE(1, 16);
    const end = Buffer.alloc(22);
    end.writeUInt32LE(0x06054b50, 0);
    end.writeUInt16LE(0xffff, 8);
    end.writeUInt16LE(0xffff, 10);
    end.writeUInt32LE(0xffffffff, 12);
    end.writeUInt32LE(0xffffffff, 16);
    expect(await refusalOf(Buffer.concat([good, record, locator, end]))).toMatch(/lists 10000000 files/);
  });

  it("has no link to another file", async () => {
    const inside = mkdtempSync(join(tmpdir(), "diathesis-link-"));
    try {
      symlinkSync("/etc/passwd", join(inside, "link.json"));
      const file = join(inside, "a.zip");
      writeFileSync(file, good);
      execFileSync("zip", ["-qy", "a.zip", "link.json"], { cwd: inside });
      expect(await refusalOf(readFileSync(file))).toMatch(/“link.json” is not read: it is a link/);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "ENOENT") throw error;
      // Without the tool that packs links, the rule is held by the test of the list.
    } finally {
      rmSync(inside, { recursive: true, force: true });
    }
  });
});

describe("A document in an archive that cannot be read", () => {
  const line = () => Buffer.from(files["presets/0001.jsonl"]!).toString().split("\n")[0]!;

  it("is told by its place, and all else comes in; the library is as before where there is nothing else", async () => {
    const newer = line().replace(/"schema":1/, '"schema":99');
    const bytes = archived({ "presets/0001.jsonl": Buffer.from(`${newer}\nnot json\n`) });
    const file = join(folder, "given.zip");
    writeFileSync(file, bytes);
    const taken = await takeFile(machine.context, file, { called: "it" });
    expect(taken.ok && taken.value.presets).toBe(0);
    expect(taken.ok && taken.value.problems).toEqual([
      expect.stringMatching(/presets\/0001.jsonl, line 1: .*schema 99/),
      expect.stringMatching(/presets\/0001.jsonl, line 2: It is no JSON/),
    ]);
  });

  it("of a past that leads nowhere is refused, all of it", async () => {
    const path = Object.keys(files).find((name) => /^projects\/\d+-.*\.json$/.test(name))!;
    const project = JSON.parse(Buffer.from(files[path]!).toString()) as { project: { id: string; tempo: number } };
    const other = { ...project, revision: 1, project: { ...project.project, id: "elsewhere" } };
    const change = { n: 1, at: "2026-11-02T10:00:00.000Z", label: "Turn", undoes: null, redoes: null, window: null };
    const step = { id: "s", kind: "setDetail", detail: "tempo", from: 60, to: project.project.tempo + 3 };
    const bytes = archived({
      [path]: Buffer.from(JSON.stringify(other)),
      [path.replace(".json", ".history.jsonl")]: Buffer.from(JSON.stringify({ ...change, steps: [step] })),
    });
    expect(await refusalOf(bytes)).toMatch(/Its past does not lead to how it stands/);
  });
});

describe("Writing an archive", () => {
  it("never overwrites, and leaves nothing half where it is stopped", async () => {
    const writing = {
      folder: machine.folder,
      chosen: { presets: null, projects: null },
      scope: { kind: "all" as const },
      at: new Date("2026-11-25T08:00:00.000Z"),
      madeBy: "Diathesis",
    };
    const to = join(folder, "given.zip");
    await expect(writeArchive(writing, to)).rejects.toThrow(/already; it stays/);
    const stop = (done: number) => {
      if (done > 0) throw new Error("stopped");
    };
    await expect(writeArchive(writing, join(folder, "other.zip"), stop)).rejects.toThrow("stopped");
    expect(readdirSync(folder)).toEqual(["given.zip"]);
  });

  it("is what unzip calls whole", () => {
    writeFileSync(join(folder, "given.zip"), good);
    try {
      execFileSync("unzip", ["-tq", join(folder, "given.zip")]);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "ENOENT") throw error;
    }
  });
});
