const KEPT_MS = 10_000;

/** Save a text as a file on this device. */
export function saveText(text: string, name: string, type = "text/plain"): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  // Some browsers begin to read only after the press has been dealt with.
  setTimeout(() => {
    URL.revokeObjectURL(link.href);
  }, KEPT_MS);
}
