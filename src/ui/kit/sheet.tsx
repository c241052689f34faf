"use client";

import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { cx } from "./class-names";

interface Props {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly aside?: ReactNode;
  readonly children: ReactNode;
  readonly className?: string;
  readonly describedBy?: string;
}

/** A sheet of paper over the screen. The listening bar stays in reach of the eye. */
export function Sheet({ open, onClose, title, aside, children, className }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-x-0 top-[44px] bottom-[56px] left-[132px] z-30 bg-ground opacity-70" />
        <Dialog.Content
          aria-describedby={undefined}
          className={cx(
            "fixed top-[64px] outline-none left-[calc(50vw+66px)] z-40 flex max-w-[calc(100vw-156px)] max-h-[calc(100vh-136px)] -translate-x-1/2 flex-col gap-[14px] overflow-auto rounded-card border border-edge bg-card px-[22px] py-[18px]",
            className,
          )}
        >
          <div className="flex items-baseline gap-3">
            <Dialog.Title className="h1">{title}</Dialog.Title>
            <span className="text-soft">{aside}</span>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
