"use client";

import * as archive from "@/clients/archive";
import type { Wish } from "@/contracts/archive";
import { say } from "../kit/say";
import { follow } from "./follow";

/** Archives a part of the library from another screen than the archive's, and says where it lies. */
export async function archivePart(wish: Wish, called: string): Promise<void> {
  const { job } = await archive.beginArchive(wish);
  const result = await follow(job, () => undefined);
  const file = result.kind === "wrote" ? ` as ${result.file}` : "";
  say(`“${called}” is archived${file}`);
}
