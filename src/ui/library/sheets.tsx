"use client";

import { Suspense, lazy } from "react";
import { Opening } from "../kit/bits";
import { useLibrarySheet } from "./filing";

// Each comes when it is first opened.
const EditSheet = lazy(() => import("./edit-sheet").then((m) => ({ default: m.EditSheet })));
const RenameSheet = lazy(() => import("./rename-sheet").then((m) => ({ default: m.RenameSheet })));
const FolderSheet = lazy(() => import("./folder-sheet").then((m) => ({ default: m.FolderSheet })));
const BinSheet = lazy(() => import("./bin-sheet").then((m) => ({ default: m.BinSheet })));
const CompareSheet = lazy(() => import("./compare-sheet").then((m) => ({ default: m.CompareSheet })));
const UsesSheet = lazy(() => import("./uses-sheet").then((m) => ({ default: m.UsesSheet })));
const NearCopiesSheet = lazy(() => import("./near-copies-sheet").then((m) => ({ default: m.NearCopiesSheet })));
const NamingSheet = lazy(() => import("./naming-sheet").then((m) => ({ default: m.NamingSheet })));

export const LibrarySheets = () => (
  <Suspense fallback={<Opening />}>
    <OpenSheet />
  </Suspense>
);

function OpenSheet() {
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
    case "uses":
      return <UsesSheet preset={open.preset} />;
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
