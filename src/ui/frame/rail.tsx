"use client";

import { Keyboard, Lamp, Sun } from "lucide-react";
import Link from "next/link";
import { usePathname } from "next/navigation";
import { cx } from "../kit/class-names";
import { useIsBrowser } from "../kit/use-is-browser";
import { useInHand } from "../projects/in-hand";
import { SCREENS, addressOf } from "./screens";
import { openShortcuts } from "./shortcuts";
import { type Theme, setTheme, themeNow, useTheme } from "./theme";

const LINE = "flex h-[34px] w-full items-center gap-[10px] border-l-[3px] px-[14px]";
const ICON = { size: 16, strokeWidth: 1.75, "aria-hidden": true } as const;

function Brand() {
  return (
    <div className="flex items-center gap-2 px-[14px] pb-4 font-[500] font-name text-[19px] leading-6 tracking-[-0.01em]">
      <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true" className="flex-none">
        <path d="M2.5 17.5V10h4.5v7.5z M7 17.5V6h4.5v11.5z" fill="none" stroke="var(--live)" strokeWidth="1.5" />
        <path d="M11.5 17.5V2.5H16v15z M1 17.5h17.5" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      </svg>
      Diathesis
    </div>
  );
}

export function Rail({ theme: given }: { readonly theme: Theme | null }) {
  const path = usePathname();
  const hand = useInHand();
  const chosen = useTheme((t) => t.theme) ?? given;
  const inBrowser = useIsBrowser();
  const shown: Theme = inBrowser ? themeNow(chosen) : (chosen ?? "day");
  const other: Theme = shown === "lamp" ? "day" : "lamp";
  return (
    <nav aria-label="Screens" className="row-span-2 flex flex-col border-edge border-r pt-[10px] pb-3">
      <Brand />
      {SCREENS.map((screen) => {
        const { word, Icon } = screen;
        const on = path.startsWith(screen.path);
        return (
          <Link
            key={word}
            href={addressOf(screen, hand)}
            aria-current={on ? "page" : undefined}
            className={cx(LINE, on ? "border-live bg-card text-ink" : "border-transparent text-soft hover:text-ink")}
          >
            <Icon {...ICON} />
            {word}
          </Link>
        );
      })}
      <div className="mt-auto">
        <button
          type="button"
          className={cx(LINE, "border-transparent text-soft hover:text-ink")}
          onClick={() => setTheme(other)}
        >
          {other === "lamp" ? <Lamp {...ICON} /> : <Sun {...ICON} />}
          {other === "lamp" ? "Lamp" : "Day"}
        </button>
        <button
          type="button"
          className={cx(LINE, "border-transparent text-soft hover:text-ink")}
          onClick={openShortcuts}
        >
          <Keyboard {...ICON} />
          Shortcuts
        </button>
      </div>
    </nav>
  );
}
