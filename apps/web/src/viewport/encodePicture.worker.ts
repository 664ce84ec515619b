/** Packs one bitmap as a PNG. */
const scope = self as unknown as {
  postMessage(message: Blob | null): void;
  onmessage: ((event: MessageEvent<ImageBitmap>) => void) | null;
};

scope.onmessage = ({ data: bitmap }) => {
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
  bitmap.close();
  canvas.convertToBlob({ type: 'image/png' }).then(
    (blob) => scope.postMessage(blob),
    () => scope.postMessage(null),
  );
};
