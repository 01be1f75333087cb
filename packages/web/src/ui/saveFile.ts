/** Has the browser keep a text as a file. */
export function saveFile(file: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = file;
  link.click();
  URL.revokeObjectURL(address);
}
