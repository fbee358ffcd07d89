// Gives the user a file to keep.

/** @param type a MIME type. */
export function saveFile(name: string, data: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([data], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-');
  link.click();
  // The browser has taken the bytes by then; a minute is long enough for a slow phone.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
