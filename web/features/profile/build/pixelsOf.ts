/** Largest side that colours are counted on: enough for areas, and quick for pictures of any size. */
const SIDE = 512;

/** RGBA of a picture, made smaller where it is large. */
export async function pixelsOf(source: Blob): Promise<Uint8ClampedArray> {
  const bitmap = await createImageBitmap(source);
  return drawn(bitmap, bitmap.width, bitmap.height);
}

/** The same of a picture that ships with Melto. */
export async function pixelsOfAddress(address: string): Promise<Uint8ClampedArray> {
  const image = new Image();
  image.src = address;
  await image.decode();
  return drawn(image, image.naturalWidth, image.naturalHeight);
}

function drawn(image: CanvasImageSource, width: number, height: number): Uint8ClampedArray {
  const factor = Math.min(1, SIDE / Math.max(width, height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(width * factor));
  canvas.height = Math.max(1, Math.round(height * factor));
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (context === null) throw new Error('no canvas to draw on');
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return context.getImageData(0, 0, canvas.width, canvas.height).data;
}
