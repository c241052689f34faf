/** "840", "kB"; "1.2", "MB". */
export function formatSize(bytes: number): { readonly text: string; readonly unit: "kB" | "MB" | "GB" } {
  const kilobytes = bytes / 1000;
  if (kilobytes < 1000) return { text: String(Math.max(1, Math.round(kilobytes))), unit: "kB" };
  const megabytes = kilobytes / 1000;
  return megabytes < 1000
    ? { text: megabytes.toFixed(1), unit: "MB" }
    : { text: (megabytes / 1000).toFixed(1), unit: "GB" };
}
