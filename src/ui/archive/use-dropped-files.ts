"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";

/** What of a drop, or of what is pasted, is an archive or a document. */
const isOurs = ({ name }: File): boolean => /\.(zip|json)$/i.test(name);

const isDocument = (text: string): boolean => text.length < 64e6 && /^\s*\{\s*"diathesis"\s*:\s*"preset"/.test(text);

/** An archive or a document that is dropped anywhere on the window, or pasted beside a field, is looked at before it comes in. */
export function useDroppedFiles(): void {
  const router = useRouter();
  useEffect(() => {
    const take = (file: File) =>
      void import("./arriving").then(({ arrive }) => arrive(file, (address) => router.push(address)));
    const over = (event: DragEvent) => {
      if (!event.defaultPrevented && event.dataTransfer?.types.includes("Files")) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      if (event.defaultPrevented) return;
      const file = [...(event.dataTransfer?.files ?? [])].find(isOurs);
      if (!event.dataTransfer?.types.includes("Files")) return;
      event.preventDefault();
      if (file) take(file);
    };
    const paste = (event: ClipboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest("input, textarea") !== null;
      const text = event.clipboardData?.getData("text/plain") ?? "";
      if (event.defaultPrevented || inField || !isDocument(text)) return;
      event.preventDefault();
      void import("./arriving").then(({ asFile }) => take(asFile(text)));
    };
    window.addEventListener("dragover", over);
    window.addEventListener("drop", drop);
    window.addEventListener("paste", paste);
    return () => {
      window.removeEventListener("dragover", over);
      window.removeEventListener("drop", drop);
      window.removeEventListener("paste", paste);
    };
  }, [router]);
}
