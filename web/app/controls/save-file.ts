/** Hands a text to the person as a file. */
export function saveFile(name: string, text: string, type: string): void {
  saveBlob(name, new Blob([text], { type }));
}

export function saveBlob(name: string, body: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(body);
  link.download = name;
  link.click();
  // A large file is still being written when the click returns.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}
