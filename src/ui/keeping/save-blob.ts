/** Until the browser has surely taken it up, in milliseconds. */
const TAKEN_UP = 60_000;

/** Hands a file to the browser, which keeps it where it keeps files. */
export function saveBlob(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), TAKEN_UP);
}
