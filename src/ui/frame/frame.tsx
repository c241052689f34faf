"use client";

import { useRouter } from "next/navigation";
import { type ReactNode, Suspense, lazy, useEffect } from "react";
import { counted } from "@/core/names/count";
import { useActionKeys, useActions } from "../actions/actions";
import { BackupAlarm } from "../archive/backup-alarm";
import { useDroppedFiles } from "../archive/use-dropped-files";
import { Opening } from "../kit/bits";
import { useWordsWanted, wantWords } from "../kit/say";
import { ListeningBar } from "../listening/listening-bar";
import { useMediaSheet, useToCut } from "../listening/materials";
import { useOpenProject } from "../projects/open-project";
import { historyActions } from "../projects/history";
import { useSave } from "../save/save";
import { useOwnShortcuts } from "../plan/own-shortcuts";
import { ActionField } from "./action-field";
import { useInHand } from "../projects/in-hand";
import { useKeepFocus } from "../kit/keep-focus";
import { useTellShortened } from "../kit/tell-shortened";
import { Rail } from "./rail";
import { SCREENS, benchAddress } from "./screens";
import { openShortcuts, useShortcuts } from "./shortcuts";
import { type Theme, setTheme, themeNow, useTheme } from "./theme";

// Sheets come when they are first opened.
const SaveSheet = lazy(() => import("../save/save-sheet").then((m) => ({ default: m.SaveSheet })));
const ShortcutsSheet = lazy(() => import("./shortcuts-sheet").then((m) => ({ default: m.ShortcutsSheet })));

const MediaSheet = lazy(() => import("../listening/media-sheet").then((m) => ({ default: m.MediaSheet })));
const CutSheet = lazy(() => import("../listening/cut-sheet").then((m) => ({ default: m.CutSheet })));
const Words = lazy(() => import("./words").then((m) => ({ default: m.Words })));

/** From the first press on the place for words stands ready: it could not be fetched to say that the server has gone. */
function useFirstPress(act: () => void): void {
  useEffect(() => {
    const once = { once: true, capture: true } as const;
    window.addEventListener("keydown", act, once);
    window.addEventListener("pointerdown", act, once);
    window.addEventListener("dragenter", act, once);
    return () => {
      window.removeEventListener("keydown", act, once);
      window.removeEventListener("pointerdown", act, once);
      window.removeEventListener("dragenter", act, once);
    };
  }, [act]);
}

function Sheets() {
  const request = useSave((s) => s.request);
  const shortcuts = useShortcuts((s) => s.open);
  const media = useMediaSheet((s) => s.open);
  const toCut = useToCut((c) => c.toCut);
  const words = useWordsWanted((w) => w.wanted);
  useFirstPress(wantWords);
  return (
    <>
      <Suspense>{words && <Words />}</Suspense>
      <Suspense fallback={<Opening />}>
        {request && (
          <SaveSheet key={`${request.project} ${request.strips.join(" ")} ${request.node ?? ""}`} request={request} />
        )}
      </Suspense>
      <Suspense fallback={<Opening />}>{shortcuts && <ShortcutsSheet />}</Suspense>
      <Suspense fallback={<Opening />}>{media && <MediaSheet />}</Suspense>
      <Suspense fallback={<Opening />}>{toCut && <CutSheet key={toCut.name} />}</Suspense>
    </>
  );
}

/** Rail, field, project in hand, listening bar: the same on every screen. */
export function Frame({ theme, children }: { readonly theme: Theme | null; readonly children: ReactNode }) {
  const router = useRouter();
  const hand = useInHand();
  const chosen = useTheme((t) => t.theme) ?? theme;
  const inHand = useOpenProject(hand.project);
  useActionKeys();
  useKeepFocus();
  useTellShortened();
  useOwnShortcuts();
  useDroppedFiles();
  useActions(
    [
      // What was applied from the library is taken back there, too; a screen of its own history puts it before this.
      ...historyActions(inHand, "Everywhere"),
      ...SCREENS.flatMap((screen) => screen.ways).map(({ id, title, keys, address }) => {
        const to = address(hand);
        return { id, title, group: "Everywhere", keys, enabled: to !== null, run: () => to && router.push(to) };
      }),
      { id: "shortcuts", title: "Shortcuts", group: "Everywhere", keys: ["?"], run: openShortcuts },
      {
        id: "theme",
        title: "Day or Lamp",
        group: "Everywhere",
        run: () => setTheme(themeNow(chosen) === "lamp" ? "day" : "lamp"),
      },
      {
        id: "always-plan",
        title: hand.alwaysPlan ? "Apply at once where nothing is asked" : "Always show the plan before applying",
        group: "Everywhere",
        run: () => useInHand.setState({ alwaysPlan: !hand.alwaysPlan }),
      },
    ],
    "everywhere",
  );
  return (
    <div
      tabIndex={-1}
      className="grid h-full min-w-[1024px] outline-none grid-cols-[132px_minmax(0,1fr)] grid-rows-[44px_minmax(0,1fr)_56px]"
    >
      <Rail theme={theme} />
      <header className="flex items-center gap-3 border-edge border-b px-4">
        <ActionField />
        <BackupAlarm />
        <InHand />
      </header>
      <main tabIndex={-1} className="min-h-0 min-w-0 outline-none">
        {children}
      </main>
      <ListeningBar />
      <Sheets />
    </div>
  );
}

function InHand() {
  const hand = useInHand();
  const { project: id, strips } = hand;
  const { body } = useOpenProject(id);
  if (!body) return <p className="ml-auto text-small text-soft">No project in hand</p>;
  const { project } = body;
  const chosen = strips.filter((s) => project.strips.some((strip) => strip.id === s));
  // What the bench opens on is named here.
  const bench = new URLSearchParams(benchAddress(hand).split("?")[1]);
  const strip = project.strips.find((s) => s.id === bench.get("strip"));
  const words =
    chosen.length > 1
      ? counted(chosen.length, "strip chosen", "strips chosen")
      : strip
        ? `strip ${strip.look.name}`
        : bench.size > 0
          ? "a library sound on the bench"
          : `${project.tempo} bpm`;
  return (
    <p className="ml-auto flex min-w-0 items-baseline gap-[10px] whitespace-nowrap text-small text-soft">
      <span className="flex-none">Working on</span>
      <span className="name max-w-[55%] flex-none truncate text-ink">{project.name}</span>
      <span className="min-w-0 truncate">
        {project.artist} · {words}
      </span>
    </p>
  );
}
