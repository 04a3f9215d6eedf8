/** Asks for files and hands on those chosen. */
export function askForFiles(accept: string, take: (files: File[]) => void, several = false): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.multiple = several;
  input.onchange = () => {
    const files = [...(input.files ?? [])];
    if (files.length > 0) take(files);
  };
  input.click();
}

const PICTURE_TYPES = 'image/png,image/jpeg,image/webp,image/gif,image/tiff,image/avif,image/svg+xml';

/** Asks for whatever a desk can take: those, and palettes as text. */
export const askForFile = (take: (files: File[]) => void): void =>
  askForFiles(`${PICTURE_TYPES},application/zip,.zip,.dxf,.txt,.css,.json`, take, true);

/** Asks for whatever a project can be started with: pictures, drawings, bundles. */
export const askForAnything = (take: (files: File[]) => void): void =>
  askForFiles(`${PICTURE_TYPES},application/zip,.zip,.dxf`, take, true);

export const askForPictures = (take: (files: File[]) => void, several = true): void =>
  askForFiles(PICTURE_TYPES, take, several);
