import type { Written } from "@/core/units/format";
import { cx } from "./class-names";

/** A number with its unit set lighter. */
export function Num({
  written,
  className,
  small,
}: {
  readonly written: Written;
  readonly className?: string;
  readonly small?: boolean;
}) {
  return (
    <span className={cx(small ? "num-small" : "num", className)}>
      {written.text}
      {written.unit !== "" && <span className="unit">{written.unit}</span>}
    </span>
  );
}
