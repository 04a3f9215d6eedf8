// SVG painted by the browser.

/** Most pixels that browsers paint at once. */
const MOST_PIXELS_HERE = 100_000_000;

/** What a blob holds as an address, so that it stands within an SVG. */
export const addressOf = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(new Error('A picture could not be read.'));
    reader.readAsDataURL(blob);
  });

/** A canvas of a size in pixels, with its context. */
export function canvasOf(width: number, height: number): CanvasRenderingContext2D {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  return canvas.getContext('2d', { willReadFrequently: true })!;
}

/**
 * Paints an SVG as so many pixels, whatever size it says.
 *
 * @throws Error with a sentence where that is too many
 */
export async function paintSvg(
  svg: string,
  width: number,
  height: number,
): Promise<CanvasRenderingContext2D> {
  if (width * height > MOST_PIXELS_HERE)
    throw new Error(`That would make ${width} × ${height} pixels; 100 million are the most. Choose a smaller width or ppi.`); // prettier-ignore
  const sized = svg.replace(
    /^<svg ([^>]*?)width="[^"]*" height="[^"]*"/,
    `<svg $1width="${width}" height="${height}"`,
  );
  const address = URL.createObjectURL(new Blob([sized], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    const context = canvasOf(width, height);
    context.drawImage(image, 0, 0, width, height);
    return context;
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** What was painted as PNG. */
export async function pngOf({ canvas }: CanvasRenderingContext2D): Promise<Blob> {
  const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
  if (!png) throw new Error('The browser could not paint that many pixels. Choose a smaller width or ppi.');
  return png;
}
