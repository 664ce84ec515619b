/** What is drawn on a canvas → a PNG, off the page's thread: to read a canvas back and to pack it would hold the page. */

/**
 * The upper left corner of a canvas as it is now, as a PNG; null where it cannot be made.
 * @param sizes how much of the canvas is taken, and how large the PNG is, pixels
 */
export async function encodePicture(
  canvas: HTMLCanvasElement,
  { from, to }: Record<'from' | 'to', { readonly width: number; readonly height: number }>,
): Promise<Blob | null> {
  const size = { resizeWidth: to.width, resizeHeight: to.height, resizeQuality: 'medium' } as const;
  // The canvas is copied as it is now, before anything else is drawn on it.
  const bitmap = await createImageBitmap(canvas, 0, 0, from.width, from.height, size);
  const worker = new Worker(new URL('./encodePicture.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await new Promise((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<Blob | null>) => resolve(data);
      worker.onerror = ({ message }) => reject(new Error(message));
      worker.postMessage(bitmap, [bitmap]);
    });
  } finally {
    worker.terminate();
  }
}
