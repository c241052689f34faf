import type { ReactNode } from "react";

export const INPUT =
  "h-[30px] w-full rounded-card border border-bound bg-ground px-[10px] disabled:border-edge disabled:bg-transparent disabled:text-soft";

/** A label with what is filled in beside it. */
export const Field = ({ label, children }: { readonly label: string; readonly children: ReactNode }) => (
  <label className="contents">
    <span className="self-center text-soft">{label}</span>
    {children}
  </label>
);

/** Why something cannot be done, where it was tried. */
export const Refused = ({ children }: { readonly children: ReactNode }) => (
  <p role="alert" className="border-alert border-l-[3px] bg-alert-tint px-3 py-2">
    {children}
  </p>
);
