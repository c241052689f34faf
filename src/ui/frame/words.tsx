"use client";

import { Toaster } from "sonner";

/** Where words at the lower edge appear, above the listening bar. */
export function Words() {
  return (
    <Toaster
      position="bottom-center"
      offset={72}
      visibleToasts={3}
      duration={6000}
      toastOptions={{
        unstyled: true,
        classNames: {
          toast:
            "flex w-[420px] items-center gap-3 rounded-card border border-edge bg-card px-4 py-2 text-ink font-text",
          title: "flex-1",
          actionButton: "rounded-card border border-edge px-3 h-[26px] text-live hover:border-live whitespace-nowrap",
          error: "border-alert! bg-alert-tint!",
        },
      }}
    />
  );
}
