/** The longest side that is kept, in pixels; and how finely the picture is written. */
const LONGEST = 1600;
const QUALITY = 0.85;

/** A photo, upright, no larger than it is kept: as JPEG in base64. Rejects what is no picture. */
export async function smaller(file: Blob): Promise<string> {
  const read = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(read.width, read.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(read.width * scale));
  canvas.height = Math.max(1, Math.round(read.height * scale));
  canvas.getContext("2d")?.drawImage(read, 0, 0, canvas.width, canvas.height);
  read.close();
  const [, base64 = ""] = canvas.toDataURL("image/jpeg", QUALITY).split(",");
  return base64;
}
