import { drawnData } from '../../art/line-data';
import { maskBox, type Mask, type PaintedPart } from '../../art/paint-list';
import { boxCentre, boxHeight, boxWidth, type Box } from '../../geometry/bounds';
import { number, type Attributes, type SvgElement } from './xml';

// Masks as SVG has them (W3C CSS Masking 1): what is white in a mask shows, what is black does not.

/** An element of a mask: the parts of a drawing that are painted in it follow what else stands in it. */
export type MaskElement = SvgElement<{ readonly parts?: readonly PaintedPart[] }>;

/** How much of a colour the eye takes as its lightness (luma, Rec. ITU-R BT.709). */
const LUMA = [0.2126, 0.7152, 0.0722] as const;

/** Share of the way from the middle to the border of the outline where the shadow's side has its whole strength. */
const WHOLE_SIDE = 0.6;
/** A shadow's outline is grown by half its reach and blurred by a quarter: at its reach a fortieth is left. */
const SHADOW_GROWTH = 1 / 2;
const SHADOW_BLUR = 1 / 4;

const roomOf = (box: Box): Attributes => ({
  x: number(box.x0),
  y: number(box.y0),
  width: number(boxWidth(box)),
  height: number(boxHeight(box)),
});

/**
 * The elements of a mask, what it refers to first.
 *
 * @param idOf gives the id of one of them by a word for it; `mask` is the mask itself
 */
export function maskElements(mask: Mask, idOf: (what: string) => string): readonly MaskElement[] {
  const room = roomOf(maskBox(mask));
  const units = { maskUnits: 'userSpaceOnUse', ...room };
  const filter = (what: string, step: MaskElement): MaskElement => ({
    name: 'filter',
    attributes: { id: idOf(what), filterUnits: 'userSpaceOnUse', ...room, 'color-interpolation-filters': 'sRGB' }, // prettier-ignore
    inner: [step],
  });
  const blurred = (what: string, deviation: number): MaskElement =>
    filter(what, { name: 'feGaussianBlur', attributes: { stdDeviation: number(deviation) } });
  const outline = (more: Attributes): MaskElement => ({
    name: 'path',
    attributes: { d: drawnData(mask.paths), 'fill-rule': 'evenodd', ...more },
  });

  if (mask.kind === 'edge') {
    const { by, soft } = mask;
    // Grown by a line of the same colour along it, shrunk by one of the other: each lies half to either side.
    const grown: Attributes =
      by === 0 ? {} : { stroke: by > 0 ? '#ffffff' : '#000000', 'stroke-width': number(2 * Math.abs(by)), 'stroke-linejoin': 'round' }; // prettier-ignore
    const drawn = outline({
      fill: '#ffffff',
      ...grown,
      filter: soft > 0 ? `url(#${idOf('softness')})` : null,
    });
    return [
      ...(soft > 0 ? [blurred('softness', soft)] : []),
      { name: 'mask', attributes: { id: idOf('mask'), ...units }, inner: [drawn] },
    ];
  }

  const { side, reach, ground, parts } = mask;
  const box = maskBox({ ...mask, kind: 'edge', by: 0, soft: 0 });
  const middle = boxCentre(box);
  const [x, y] = [Math.cos(side), Math.sin(side)];
  const far = (Math.abs(x) * boxWidth(box) + Math.abs(y) * boxHeight(box)) / 2;
  const onSide = `url(#${idOf('side')})`;
  return [
    {
      name: 'linearGradient',
      attributes: {
        id: idOf('side'),
        gradientUnits: 'userSpaceOnUse',
        x1: number(middle.x),
        y1: number(middle.y),
        x2: number(middle.x + WHOLE_SIDE * far * x),
        y2: number(middle.y + WHOLE_SIDE * far * y),
      },
      inner: [
        { name: 'stop', attributes: { offset: '0', 'stop-color': '#000000' } },
        { name: 'stop', attributes: { offset: '1', 'stop-color': '#ffffff' } },
      ],
    },
    blurred('spread', SHADOW_BLUR * reach),
    {
      name: 'mask',
      attributes: { id: idOf('place'), ...units },
      inner: [
        outline({
          fill: onSide,
          stroke: onSide,
          'stroke-width': number(2 * SHADOW_GROWTH * reach),
          'stroke-linejoin': 'round',
          filter: `url(#${idOf('spread')})`,
        }),
      ],
    },
    // What is as light as the ground, or lighter, becomes black; what is black, white.
    filter('darkness', {
      name: 'feColorMatrix',
      attributes: {
        type: 'matrix',
        values: [...Array<number[]>(3).fill([...LUMA.map((v) => -v / ground), 0, 1]), [0, 0, 0, 1, 0]]
          .flat()
          .map((v) => number(v, 6))
          .join(' '),
      },
    }),
    {
      name: 'mask',
      attributes: { id: idOf('mask'), ...units },
      inner: [
        {
          name: 'g',
          attributes: { mask: `url(#${idOf('place')})` },
          inner: [{ name: 'g', attributes: { filter: `url(#${idOf('darkness')})` }, parts }],
        },
      ],
    },
  ];
}
