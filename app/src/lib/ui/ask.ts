/** Asks for picture files and hands on those chosen. */
export function askForPictures(take: (files: File[]) => void, several = true): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = 'image/png,image/jpeg,image/webp,image/gif,image/tiff,image/avif,image/svg+xml';
  input.multiple = several;
  input.onchange = () => {
    const files = [...(input.files ?? [])];
    if (files.length > 0) take(files);
  };
  input.click();
}
