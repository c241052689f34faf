/** A button in the line at the foot of the ledger. */
export const FOOT_BUTTON = "flex h-[24px] items-center gap-[5px] rounded-card px-[6px] hover:bg-sunk hover:text-ink";
