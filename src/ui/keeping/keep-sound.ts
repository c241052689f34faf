import { documentAddress } from "@/clients/archive";
import type { PresetRow } from "@/contracts/records";
import { orSay } from "../kit/say";

type Named = Pick<PresetRow, "id" | "card">;

/** Saves a sound as a document of its own; the browser keeps the file, and the screen stays. */
export const saveSound = ({ id }: Named): void => window.location.assign(documentAddress(id));

/** Writes a sound, with all that it uses, into an archive of its own. */
export const archiveSound = ({ id, card }: Named): void =>
  orSay(import("./archive-part").then((m) => m.archivePart({ kind: "preset", id }, card.name)));
