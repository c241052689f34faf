import type { ItemPage } from "@/contracts/archive";
import { type Choice, choicesOf } from "@/core/archive/comparison";
import { counted } from "@/core/names/count";
import { KIND_NAMES, type PresetKind } from "@/core/presets/preset";
import { cx } from "../kit/class-names";
import { formatDate } from "../kit/dates";
import { Segments } from "../kit/segments";
import { STANDING_WORDS, choiceWords } from "./words";

type Item = ItemPage["items"][number];

const GRID = "grid grid-cols-[minmax(140px,1.2fr)_126px_minmax(150px,1fr)_236px] items-center gap-[12px] px-[14px]";

const nounOf = ({ kind }: Item): readonly [string, string] =>
  kind === "preset" ? ["version", "versions"] : ["change", "changes"];

/** How it stands, in words and figures. */
function standingWords(item: Item): string {
  const { standing, theirs, own, like } = item;
  const [one, many] = nounOf(item);
  const there = counted(theirs, one, many);
  switch (standing) {
    case "new":
      return like ? `${there}; “${like.name}” here is set alike` : there;
    case "namesake":
      return `${there}; another “${like?.name ?? item.name}” is here`;
    case "newer":
    case "older":
      if (item.isBinnedHere) return "in the bin here";
      return item.isCardAlone ? "only its card is another" : `${there} there, ${own} here`;
    case "forked":
      return `${there} there, ${own} here`;
    case "same":
      return there;
    case "unread":
      return item.problem ?? "";
  }
}

interface Props {
  readonly item: Item;
  readonly choice: Choice;
  readonly isFixed: boolean;
  readonly onChoose: (choice: Choice) => void;
}

/** One thing that could come in: how it stands, and what is done with it. */
export function IncomingLine({ item, choice, isFixed, onChoose }: Props) {
  const { standing, name, place, holds, kind, at } = item;
  const possible = choicesOf(item);
  const words = STANDING_WORDS[standing].words;
  return (
    <div role="row" className={cx(GRID, "min-h-11 border-rule border-b py-1", choice === "leave" && "text-soft")}>
      <span role="gridcell" className="grid min-w-0">
        <span className="name truncate">{name === "" ? "without a name" : name}</span>
        <span className="truncate text-small text-soft">
          {kind === "project" ? "Project" : holds ? KIND_NAMES[holds as PresetKind] : "Document"}
          {place !== "" && ` · ${place}`}
        </span>
      </span>
      <span role="gridcell" className={cx(standing === "forked" && "text-edit", standing === "unread" && "text-alert")}>
        {words}
      </span>
      <span role="gridcell" className="grid min-w-0 text-small">
        <span className={standing === "unread" ? "" : "truncate"}>{standingWords(item)}</span>
        {at !== null && <span className="text-soft">{formatDate(at)}</span>}
      </span>
      <span role="gridcell" className="justify-self-end">
        {possible.length > 1 && !isFixed && (
          <Segments
            label={`What is done with ${name}`}
            options={possible.map((one) => ({ value: one, label: choiceWords(item, one) }))}
            value={choice}
            onChange={onChoose}
            tight
          />
        )}
      </span>
    </div>
  );
}
