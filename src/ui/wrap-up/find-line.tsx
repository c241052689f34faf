import { cx } from "../kit/class-names";
import { Shapes } from "../kit/shape";
import { Tick } from "../kit/tick";
import type { Hand } from "./use-hand";
import { type Row, alsoWords, isKept, levelWords, standingWords } from "./rows";
import type { Findings } from "./use-findings";

interface LineProps {
  readonly row: Row;
  readonly findings: Findings;
  readonly hand: Hand;
  /** Its strip stands beside it: what is over it is a project. */
  readonly saysStrip: boolean;
}

/** One find, with its tick, and the name that it would have. */
export function FindLine({ row, findings, hand, saysStrip }: LineProps) {
  const filed = findings.filed.find((one) => one.row.key === row.key);
  const isInHand = hand.isIn(row);
  const along = filed?.companions.length ?? 0;
  return (
    // The keys are those of the screen.
    // biome-ignore lint/a11y/useKeyWithClickEvents: arrow keys choose lines
    <div
      id={`find-${row.key}`}
      role="row"
      tabIndex={-1}
      aria-selected={isInHand}
      onClick={(event) =>
        hand.choose(row.key, event.shiftKey ? "upTo" : event.ctrlKey || event.metaKey ? "also" : "only")
      }
      // A stretch is chosen, not its words.
      onMouseDown={(event) => event.shiftKey && event.preventDefault()}
      className={cx(
        "grid min-h-[40px] grid-cols-[15px_170px_200px_1fr] items-center gap-3 border-rule border-b border-l-[3px] px-[11px]",
        isInHand ? "bg-live-tint" : "",
        row === hand.row ? "border-l-live" : "border-l-transparent",
      )}
    >
      <span role="gridcell" className="grid">
        {isKept(row) ? null : (
          <Tick
            label={`${levelWords(row)} of ${row.strip.look.name}`}
            on={filed !== undefined}
            onChange={(on) => findings.edit([row], () => ({ on }))}
          />
        )}
      </span>
      <span role="gridcell" className={cx("grid min-w-0", isKept(row) && "text-soft")}>
        <span className="truncate">{along > 0 ? `Set of ${row.strips + along} strips` : levelWords(row)}</span>
        {saysStrip && <span className="truncate text-small text-soft">{row.strip.look.name}</span>}
      </span>
      <span role="gridcell">
        <Shapes processors={row.processors} tempo={row.tempo} most={3} width={50} />
      </span>
      <span role="gridcell" className="grid min-w-0">
        {filed && <span className="name truncate">{filed.name}</span>}
        <span className="truncate text-small text-soft">
          {filed?.asVersion && row.standing.is === "changed" ? `version ${row.standing.newest + 1}, ` : ""}
          {standingWords(row)}
          {row.alsoAt.length > 0 && ` · ${alsoWords(row)}`}
        </span>
      </span>
    </div>
  );
}
