/** The button, before its menu has come and after. */
export const KEEP_BUTTON = {
  "aria-label": "Keep as a recall sheet, a file or an archive",
  title: "Recall sheet, file, archive",
  children: "Keep as…",
} as const;
