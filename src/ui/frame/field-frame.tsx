import { Search } from "lucide-react";
import type { ReactNode } from "react";
import { showKey } from "../actions/actions";
import { Key } from "../kit/bits";

export const FIELD = "relative w-[470px] max-w-[50vw]";
export const FIELD_INPUT = "min-w-0 flex-1 bg-transparent outline-none placeholder:text-soft";

/** The border and the signs around the one field, whichever input stands in it. */
export const FieldFrame = ({ children }: { readonly children: ReactNode }) => (
  <div className="flex h-[30px] items-center gap-2 rounded-card border border-bound bg-card px-[10px] focus-within:border-live">
    <Search size={16} strokeWidth={1.75} aria-hidden="true" className="flex-none" />
    {children}
    <Key>{showKey("Ctrl+K")}</Key>
  </div>
);
