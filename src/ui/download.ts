/** Hands the person a file the page has made or been given. */
export function download(name: string, type: string, content: string | Blob): void {
  downloadBlob(name, typeof content === 'string' ? new Blob([content], { type }) : content);
}

export function downloadBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  // The browser has the file once the click returned; a moment is kept for slow ones.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
