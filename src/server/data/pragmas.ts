/** Set on every connection and read back: the build's defaults could lose what was acknowledged. */
const PRAGMAS: readonly [name: string, value: string, reads: unknown][] = [
  ["journal_mode", "WAL", "wal"],
  ["synchronous", "FULL", 2],
  ["foreign_keys", "ON", 1],
  ["busy_timeout", "5000", 5000],
  ["cache_size", "-65536", -65_536],
  ["wal_autocheckpoint", "10000", 10_000],
];

export interface RawConnection {
  pragma(source: string, options: { simple: true }): unknown;
}

/** Throws when the database did not take a setting that durability rests on. */
export function setPragmas(connection: RawConnection): void {
  for (const [name, value, reads] of PRAGMAS) {
    connection.pragma(`${name} = ${value}`, { simple: true });
    const now = connection.pragma(name, { simple: true });
    if (now !== reads) throw new Error(`The database did not take ${name} = ${value}; it says ${String(now)}.`);
  }
}
