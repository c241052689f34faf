"use client";

import dynamic from "next/dynamic";
import { useLibrarySheet } from "./filing";

// Each comes when it is first opened.
const EditSheet = dynamic(() => import("./edit-sheet").then((m) => m.EditSheet), { ssr: false });
const RenameSheet = dynamic(() => import("./rename-sheet").then((m) => m.RenameSheet), { ssr: false });
const FolderSheet = dynamic(() => import("./folder-sheet").then((m) => m.FolderSheet), { ssr: false });
const BinSheet = dynamic(() => import("./bin-sheet").then((m) => m.BinSheet), { ssr: false });
const CompareSheet = dynamic(() => import("./compare-sheet").then((m) => m.CompareSheet), { ssr: false });

const NearCopiesSheet = dynamic(() => import("./near-copies-sheet").then((m) => m.NearCopiesSheet), { ssr: false });
const NamingSheet = dynamic(() => import("./naming-sheet").then((m) => m.NamingSheet), { ssr: false });

export function LibrarySheets() {
  const open = useLibrarySheet((s) => s.open);
  switch (open?.sheet) {
    case "edit":
      return <EditSheet presets={open.presets} begin={open.begin} />;
    case "rename":
      return <RenameSheet presets={open.presets} />;
    case "folder":
      return <FolderSheet folder={open.folder} />;
    case "compare":
      return <CompareSheet left={open.left} right={open.right} />;
    case "nearCopies":
      return <NearCopiesSheet />;
    case "naming":
      return <NamingSheet />;
    case "bin":
      return <BinSheet />;
    case undefined:
      return null;
  }
}
