import type { ButtonHTMLAttributes } from "react";
import { cx } from "./class-names";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  /** The one thing that this screen is for. */
  readonly main?: boolean;
  readonly small?: boolean;
  /** Without an edge, for what stands in a line of text. */
  readonly plain?: boolean;
}

export function Button({ main, small, plain, className, type = "button", ...rest }: Props) {
  return (
    <button
      type={type}
      className={cx(
        "inline-flex items-center gap-[7px] whitespace-nowrap rounded-card disabled:opacity-50",
        small ? "h-6 px-2 text-small" : "h-[30px] px-3",
        plain
          ? "text-soft hover:text-ink"
          : main
            ? "border border-live bg-live font-[550] text-card hover:not-disabled:brightness-110"
            : "border border-edge bg-card hover:not-disabled:border-ink aria-pressed:border-live aria-pressed:bg-live-tint aria-pressed:text-live",
        className,
      )}
      {...rest}
    />
  );
}
