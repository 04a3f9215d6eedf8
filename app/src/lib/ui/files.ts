/** Files in what was pasted or dropped; image data without a file counts as one. */
export function filesIn(data: DataTransfer | null): File[] {
  if (!data) return [];
  const files = [...data.files];
  if (files.length > 0) return files;
  return [...data.items].flatMap((item) => (item.kind === 'file' ? (item.getAsFile() ?? []) : []));
}

/** Milliseconds after which a download has been handed over for certain. */
const HANDED_OVER = 10_000;

/** Saves a file as a download. */
export function saveFile(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), HANDED_OVER);
}
