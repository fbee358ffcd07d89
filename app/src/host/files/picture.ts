// A photo or drawing from a file, made small enough to travel with the show.

/** Larger files are not opened at all: decoding them could take a phone's memory. */
const MOST_MEGABYTES = 40;

/** How large a picture may be: its longest side in pixels, and the characters of its data URL. */
export type PictureSize = { readonly side: number; readonly characters: number };
export const ROOM_PICTURE: PictureSize = { side: 1100, characters: 590_000 };
export const LAMP_PICTURE: PictureSize = { side: 200, characters: 58_000 };
/** What shows through where a drawing has no colour. */
const GROUND = '#221d2b';

export type PictureRead = { readonly data: string; readonly aspect: number } | { readonly wrong: string };

/** A JPEG as a data URL, and its height over its width; or what is wrong, in words. */
export async function pictureFromFile(file: File, size: PictureSize): Promise<PictureRead> {
  if (file.size > MOST_MEGABYTES * 1e6)
    return {
      wrong: `“${file.name}” is ${Math.round(file.size / 1e6)} MB. A picture may have up to ${MOST_MEGABYTES} MB: save it smaller and choose it again.`,
    };
  try {
    const bitmap = await createImageBitmap(file);
    const shrink = Math.min(1, size.side / Math.max(bitmap.width, bitmap.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(bitmap.width * shrink));
    canvas.height = Math.max(1, Math.round(bitmap.height * shrink));
    const context = canvas.getContext('2d');
    if (!context) return { wrong: 'This browser cannot draw pictures.' };
    context.fillStyle = GROUND;
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    bitmap.close();
    for (const quality of [0.75, 0.5, 0.3]) {
      const data = canvas.toDataURL('image/jpeg', quality);
      if (data.length <= size.characters) return { data, aspect: canvas.height / canvas.width };
    }
    return { wrong: `“${file.name}” has too much in it to be kept small. Save it with fewer details.` };
  } catch {
    return { wrong: `“${file.name}” is not a picture this browser can open. Use a JPEG or a PNG.` };
  }
}
