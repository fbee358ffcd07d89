// Gives the user a file to keep.

/** The day as it is here, in the way that sorts (ISO 8601): “2026-12-01”. */
export function dayHere(): string {
  const now = new Date();
  const parts = [now.getFullYear(), now.getMonth() + 1, now.getDate()];
  return parts.map((part) => String(part).padStart(2, '0')).join('-');
}

/** Tells spreadsheets that a table is written in UTF-8. */
const MARK = '\ufeff';

/** @param type a MIME type. */
export function saveFile(name: string, data: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([type === 'text/csv' ? MARK : '', data], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-');
  link.click();
  // The browser has taken the bytes by then; a minute is long enough for a slow phone.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
