import pack from "../../package.json";

export const version: string = pack.version;
/** Set by whoever builds a release. */
export const commit: string | undefined = process.env.DIATHESIS_COMMIT;
/** Who writes documents that leave the library, as they say it. */
export const MADE_BY = `Diathesis ${version}`;
