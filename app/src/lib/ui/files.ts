/** Files in what was pasted or dropped; image data without a file counts as one. */
export function filesIn(data: DataTransfer | null): File[] {
  if (!data) return [];
  const files = [...data.files];
  if (files.length > 0) return files;
  return [...data.items].flatMap((item) => (item.kind === 'file' ? (item.getAsFile() ?? []) : []));
}
