import type { ReactNode, RefObject } from "react";
import { cx } from "./class-names";

interface Props {
  readonly label: string;
  readonly className?: string;
  /** Where the element is kept. */
  readonly of?: RefObject<HTMLElement | null>;
  readonly children: ReactNode;
}

/** A stretch of text that scrolls: it takes the focus, so that the arrow keys move it. */
export const Scroll = ({ label, className, of, children }: Props) => (
  <section
    ref={of}
    aria-label={label}
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a list that scrolls must be reached by the keyboard
    tabIndex={0}
    className={cx("overflow-auto", className)}
  >
    {children}
  </section>
);
