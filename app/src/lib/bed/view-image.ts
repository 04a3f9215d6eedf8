import { addressOf, canvasOf, paintSvg, pngOf } from '$lib/desk/svg-pixels';

// What the bed shows, as an image: its layers of SVG put together, with the styles and pixels that they take from the page.

const SVG = 'http://www.w3.org/2000/svg';
/** Pixels of the image to one of the screen's. */
const FINENESS = 2;
/** What the page's style sheets say of lines and fills on the bed. */
const STYLED = ['fill', 'fill-rule', 'fill-opacity', 'stroke', 'stroke-width', 'stroke-linecap', 'stroke-linejoin', 'stroke-dasharray', 'opacity', 'paint-order', 'vector-effect'] as const; // prettier-ignore

/** A layer as it lies in its half, with its styles written out. */
function laidLayer(layer: SVGSVGElement, half: DOMRect): SVGSVGElement {
  const laid = layer.cloneNode(true) as SVGSVGElement;
  const own = layer.querySelectorAll<SVGElement>('[class]');
  laid.querySelectorAll<SVGElement>('[class]').forEach((copy, i) => {
    const style = getComputedStyle(own[i]!);
    for (const name of STYLED) copy.style.setProperty(name, style.getPropertyValue(name));
  });
  const box = layer.getBoundingClientRect();
  laid.setAttribute('viewBox', `0 0 ${layer.width.baseVal.value} ${layer.height.baseVal.value}`);
  laid.removeAttribute('style');
  const place = { x: box.x - half.x, y: box.y - half.y, width: box.width, height: box.height };
  for (const [name, value] of Object.entries(place)) laid.setAttribute(name, String(value));
  return laid;
}

/** Has pictures hold their pixels themselves: an SVG that is painted fetches nothing. */
async function holdPixels(svg: SVGSVGElement): Promise<void> {
  const held = new Map<string, Promise<string>>();
  // Drawn, not fetched: what the page made itself may be shown, not fetched.
  const hold = async (href: string): Promise<string> => {
    const image = new Image();
    image.src = href;
    await image.decode();
    const context = canvasOf(image.naturalWidth, image.naturalHeight);
    context.drawImage(image, 0, 0);
    return addressOf(await pngOf(context));
  };
  await Promise.all(
    [...svg.querySelectorAll('image')].map(async (image) => {
      const href = image.getAttribute('href');
      if (!href) return;
      if (!held.has(href)) held.set(href, hold(href));
      image.setAttribute('href', await held.get(href)!);
    }),
  );
}

/**
 * The bed as it is seen now, without its marks and labels, as PNG.
 *
 * @throws Error with a sentence where the pictures' pixels cannot be had
 */
export async function viewImage(bed: HTMLElement): Promise<Blob> {
  const { x, y, width, height } = bed.getBoundingClientRect();
  const whole = document.createElementNS(SVG, 'svg');
  whole.setAttribute('width', String(width));
  whole.setAttribute('height', String(height));
  whole.setAttribute('viewBox', `0 0 ${width} ${height}`);
  for (const half of bed.querySelectorAll<HTMLElement>('.half')) {
    const box = half.getBoundingClientRect();
    const part = document.createElementNS(SVG, 'svg');
    const place = { x: box.x - x, y: box.y - y, width: box.width, height: box.height };
    for (const [name, value] of Object.entries(place)) part.setAttribute(name, String(value));
    const ground = document.createElementNS(SVG, 'rect');
    for (const [name, value] of Object.entries({ width: '100%', height: '100%', fill: getComputedStyle(bed).backgroundColor })) ground.setAttribute(name, value); // prettier-ignore
    part.append(ground);
    for (const layer of half.querySelectorAll<SVGSVGElement>('.moving > svg')) part.append(laidLayer(layer, box)); // prettier-ignore
    whole.append(part);
  }
  await holdPixels(whole).catch(() => {
    throw new Error('The pictures in view cannot be fetched while the server is away. Try it later.');
  });
  const text = new XMLSerializer().serializeToString(whole);
  return pngOf(await paintSvg(text, Math.round(FINENESS * width), Math.round(FINENESS * height)));
}
