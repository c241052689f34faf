import { Button } from "./button";

interface Props {
  readonly words: string;
  /** From 0 to 1; null where that is not known. */
  readonly share: number | null;
  readonly onStop?: (() => void) | undefined;
}

/** How far long work is, with a way to stop it. */
export function Progress({ words, share, onStop }: Props) {
  return (
    <div className="flex items-center gap-3 border-rule border-b px-[14px] py-2">
      <span className="min-w-0 truncate">{words}…</span>
      <progress
        aria-label={words}
        className="h-[6px] min-w-[80px] flex-1"
        max={1}
        {...(share === null ? {} : { value: share })}
      />
      <span className="num w-[44px] text-right text-soft">{share === null ? "" : `${Math.floor(100 * share)} %`}</span>
      {onStop && (
        <Button small onClick={onStop}>
          Stop
        </Button>
      )}
    </div>
  );
}

export const shareOf = ({ done, of }: { readonly done: number; readonly of: number }): number | null =>
  of > 0 ? Math.min(1, done / of) : null;
