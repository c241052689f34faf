import type { ReactNode } from "react";
import { cx } from "./class-names";

export function Chip({
  children,
  onRemove,
  label,
}: {
  readonly children: ReactNode;
  readonly onRemove?: () => void;
  readonly label?: string;
}) {
  return (
    <span className="inline-flex items-center whitespace-nowrap rounded-[9px] border border-edge px-[7px] text-small leading-[17px] text-soft">
      {children}
      {onRemove && (
        <button
          type="button"
          className="ml-1 hover:text-ink"
          aria-label={`Remove ${label ?? "tag"}`}
          onClick={onRemove}
        >
          ×
        </button>
      )}
    </span>
  );
}

/** Stands where a sheet is on its way, and keeps its keys from what is behind it. */
export const Opening = () => <span hidden data-opening="" />;

export const Key = ({ children }: { readonly children: ReactNode }) => <kbd className="key">{children}</kbd>;

/** A heading in a side panel, with the rule under it. */
export function SideHeading({ children }: { readonly children: ReactNode }) {
  return <h2 className="h2 border-edge border-b pb-[10px]">{children}</h2>;
}

interface EmptyProps {
  readonly title: string;
  readonly children: ReactNode;
  readonly className?: string;
  /** Where nothing else on the screen is its heading. */
  readonly page?: boolean;
}

/** Nothing here yet, and what to do about it. */
export function Empty({ title, children, className, page = false }: EmptyProps) {
  const Heading = page ? "h1" : "h2";
  return (
    <div className={cx("grid max-w-[440px] content-start gap-3 px-6 py-10", className)}>
      <Heading className="name">{title}</Heading>
      <div className="grid justify-items-start gap-3 text-soft">{children}</div>
    </div>
  );
}

export function Loading({ what }: { readonly what: string }) {
  return (
    <p role="status" className="px-6 py-10 text-soft">
      {what}…
    </p>
  );
}
