"use client";

import { create } from "zustand";
import * as archive from "@/clients/archive";
import { errorText } from "../kit/error-text";
import { sayError } from "../kit/say";

/** A file on its way to the server, and which share of it has come; null where none is. */
export const useArriving = create<{ readonly arriving: { readonly name: string; readonly share: number } | null }>(
  () => ({
    arriving: null,
  }),
);

/** Sends a file, and goes where it is looked at. One at a time. */
export async function arrive(file: File, go: (address: string) => void): Promise<void> {
  if (useArriving.getState().arriving) return sayError("Another file is on its way still; wait for it.");
  const tell = (share: number) => useArriving.setState({ arriving: { name: file.name, share } });
  tell(0);
  try {
    const id = await archive.sendFile(file, tell);
    go(`/archive/incoming/${id}`);
  } catch (error) {
    sayError(errorText(error));
  } finally {
    useArriving.setState({ arriving: null });
  }
}

/** A document that was copied as text, as a file. */
export const asFile = (text: string): File => new File([text], "pasted.json", { type: "application/json" });
