/** Hands a file to the browser to be kept. */
export function download(name: string, type: string, content: string | Uint8Array): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const link = Object.assign(window.document.createElement('a'), {
    href: url,
    download: name.replace(/[/\\:*?"<>|]/g, '-'),
  });
  link.click();
  // The browser has begun to read the file by the next turn.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
