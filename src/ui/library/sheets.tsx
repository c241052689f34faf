"use client";

import { Suspense, lazy } from "react";
import { Opening } from "../kit/bits";
import { useLibrarySheet } from "./filing";

// Each comes when it is first opened.
const EditSheet = lazy(() => import("./edit-sheet").then((m) => ({ default: m.EditSheet })));
const FileBySheet = lazy(() => import("./file-by-sheet").then((m) => ({ default: m.FileBySheet })));
const MoveSheet = lazy(() => import("./move-sheet").then((m) => ({ default: m.MoveSheet })));
const TagSheet = lazy(() => import("./tag-sheet").then((m) => ({ default: m.TagSheet })));
const RenameSheet = lazy(() => import("./rename-sheet").then((m) => ({ default: m.RenameSheet })));
const FolderSheet = lazy(() => import("./folder-sheet").then((m) => ({ default: m.FolderSheet })));
const MoveFolderSheet = lazy(() => import("./move-folder-sheet").then((m) => ({ default: m.MoveFolderSheet })));
const BinSheet = lazy(() => import("./bin-sheet").then((m) => ({ default: m.BinSheet })));
const CompareSheet = lazy(() => import("./compare-sheet").then((m) => ({ default: m.CompareSheet })));
const UsesSheet = lazy(() => import("./uses-sheet").then((m) => ({ default: m.UsesSheet })));
const NearCopiesSheet = lazy(() => import("./near-copies-sheet").then((m) => ({ default: m.NearCopiesSheet })));
const WordsSheet = lazy(() => import("./words-sheet").then((m) => ({ default: m.WordsSheet })));
const HistorySheet = lazy(() => import("./history-sheet").then((m) => ({ default: m.HistorySheet })));
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
    case "fileBy":
      return <FileBySheet presets={open.presets} by={open.by} />;
    case "move":
      return <MoveSheet presets={open.presets} />;
    case "tag":
      return <TagSheet presets={open.presets} />;
    case "rename":
      return <RenameSheet presets={open.presets} />;
    case "folder":
      return <FolderSheet folder={open.folder} within={open.within} onGone={open.onGone} />;
    case "moveFolder":
      return <MoveFolderSheet folder={open.folder} />;
    case "compare":
      return <CompareSheet left={open.left} right={open.right} />;
    case "uses":
      return <UsesSheet preset={open.preset} />;
    case "nearCopies":
      return <NearCopiesSheet chosen={open.chosen} />;
    case "history":
      return <HistorySheet />;
    case "words":
      return <WordsSheet />;
    case "naming":
      return <NamingSheet />;
    case "bin":
      return <BinSheet />;
    case undefined:
      return null;
  }
}
