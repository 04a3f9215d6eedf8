import { ellipse } from '../originals/original';
import type { ExerciseOriginal } from './exercise';

// The exercises, easiest first: things of the seed room, each with its true outline.

/** A petal or part, turned about a place by so many degrees. */
const turned = (
  points: readonly (readonly [number, number])[],
  cx: number,
  cy: number,
  degrees: number,
): string[] =>
  points.map(([x, y]) => {
    const a = (degrees * Math.PI) / 180;
    return `${(cx + x * Math.cos(a) - y * Math.sin(a)).toFixed(2)} ${(cy + x * Math.sin(a) + y * Math.cos(a)).toFixed(2)}`;
  });

const petal = (degrees: number): string => {
  const [a, b, c, d, e, f, g] = turned([[-18, -96], [-96, -170], [-76, -300], [0, -316], [76, -300], [96, -170], [18, -96]], 600, 450, degrees); // prettier-ignore
  return `M${a}C${b} ${c} ${d}C${e} ${f} ${g}Z`;
};

const PANES: readonly (readonly [name: string, d: string, light: string, shade: string])[] = [
  ['Pane 1', 'M300 200L560 170L520 400L330 430Z', '#d9722e', '#c05f20'],
  ['Pane 2', 'M560 170L860 210L780 380L520 400Z', '#e0b04a', '#c9973a'],
  ['Pane 3', 'M860 210L920 460L740 540L780 380Z', '#2f6b4f', '#25583f'],
  ['Pane 4', 'M330 430L520 400L500 600L290 660Z', '#7d9a5c', '#68854a'],
  ['Pane 5', 'M520 400L780 380L740 540L500 600Z', '#b5403a', '#9a332e'],
  ['Pane 6', 'M290 660L500 600L560 760L360 780Z', '#3b8a88', '#2d7472'],
  ['Pane 7', 'M500 600L740 540L820 720L560 760Z', '#6a3fa0', '#573386'],
];

export const EXERCISES: readonly ExerciseOriginal[] = [
  {
    id: 'tray',
    title: 'The seed tray',
    minutes: 2,
    todo: ['Click its eight corners, one after the other.', 'Close on the first.', 'Straight sides need no handles.'],
    aids: ['Snapping', 'the loupe'],
    ground: 'bench',
    shapes: [
      { name: 'Tray', d: 'M260 230L940 196L952 420L716 432L726 700L470 712L460 444L272 454Z', paint: ['#5f8a6a', '#3f6a4d'] },
    ],
  },
  {
    id: 'arch',
    title: 'The arched window',
    minutes: 3,
    todo: ['One arc from two anchors: one at each foot.', 'Pull the arc up until it lies on the edge.', 'No anchor at its top.'],
    aids: ['Pull', 'handles'],
    ground: 'paper',
    shapes: [
      { name: 'Window', d: 'M340 700C340 120 860 120 860 700Z', paint: ['#4f86a6', '#356a8c'] },
    ],
    over: '<path d="M600 270V700M372 500H828" stroke="#e9e4d4" stroke-width="14" opacity="0.5"/>',
  },
  {
    id: 'leaf',
    title: 'A leaf',
    minutes: 3,
    todo: ['Two anchors: its tip and its stalk.', 'Shape each side by its two handles.', 'Both anchors stay corners.'],
    aids: ['Handles', 'Carry off'],
    ground: 'slate',
    shapes: [
      { name: 'Leaf', d: 'M300 660C330 320 620 180 930 210C900 520 640 760 300 660Z', paint: ['#7fae5a', '#4c7d3c'] },
    ],
    over: '<path d="M320 646C480 480 660 340 880 240" fill="none" stroke="#3d6a32" stroke-width="7" opacity="0.6"/>',
  },
  {
    id: 'ribbon',
    title: 'The tied ribbon',
    minutes: 4,
    todo: ['An S: each long side bends one way, then the other.', 'One smooth anchor where it turns over, or none at all.', 'Four corners, the rest by handles.'],
    aids: ['Smooth anchors', 'Carry'],
    ground: 'paper',
    shapes: [
      { name: 'Ribbon', d: 'M180 640C380 180 620 760 960 220L1030 330C720 860 460 330 270 720Z', paint: ['#d4561c', '#a83f12'] },
    ],
  },
  {
    id: 'trowel',
    title: 'The trowel’s blade',
    minutes: 4,
    todo: ['Straight from the neck, then round the tip.', 'With Carry off the next side starts straight.', 'Corners only where it is sharp.'],
    aids: ['Carry', 'J for corner or smooth'],
    ground: 'soil',
    shapes: [
      { name: 'Blade', d: 'M520 160L680 160L740 330C800 520 720 700 600 790C480 700 400 520 460 330Z', paint: ['#c3c9c8', '#8d9694'] },
    ],
    over: '<path d="M600 220C590 400 592 560 600 730" fill="none" stroke="#f4f6f5" stroke-width="10" opacity="0.35"/>',
  },
  {
    id: 'washer',
    title: 'A ring with its hole',
    minutes: 4,
    todo: ['The outer ring by four anchors, at its sides, top and foot.', 'Its hole as an outline of its own.', 'Then make it a hole.'],
    aids: ['Equal lengths', 'Mirror axis', 'a box by its drag'],
    ground: 'bench',
    shapes: [
      { name: 'Washer', d: ellipse(600, 450, 300, 270) + ellipse(600, 450, 130, 112), paint: ['#d8b45c', '#a37f31'] },
    ],
  },
  {
    id: 'poppy',
    title: 'The poppy’s seed head',
    minutes: 5,
    todo: ['It is the same on both sides: draw one.', 'Lay the mirror axis through its middle first.', 'The crown has corners, the body has none.'],
    aids: ['Mirror axis', 'Flow all'],
    ground: 'paper',
    shapes: [
      {
        name: 'Seed head',
        d: 'M600 210L690 170L700 230L800 220L750 300C860 370 860 560 720 650C680 680 650 700 640 790L560 790C550 700 520 680 480 650C340 560 340 370 450 300L400 220L500 230L510 170Z',
        paint: ['#a7a56f', '#77774a'],
      },
    ],
    over: '<path d="M600 320V640M520 330C490 440 500 560 540 630M680 330C710 440 700 560 660 630" fill="none" stroke="#666640" stroke-width="6" opacity="0.5"/>',
  },
  {
    id: 'pebble',
    title: 'The pebble',
    minutes: 3,
    todo: ['Click round it quickly, straight from place to place.', 'An anchor wherever it bends most.', 'Then Flow all.'],
    aids: ['Flow all', 'Settle'],
    ground: 'soil',
    shapes: [
      {
        name: 'Pebble',
        d: 'M330 470C320 340 430 230 560 240C640 246 700 190 790 220C900 256 930 380 890 470C860 540 900 610 830 680C750 760 620 700 540 720C430 746 340 610 330 470Z',
        paint: ['#b9b2a4', '#857e70'],
      },
    ],
    lens: 1,
  },
  {
    id: 'letter',
    title: 'The letter m',
    minutes: 4,
    todo: ['Follow the middle of the line, not its border.', 'One line in a single stroke, as the pen went.', 'Leave it open.'],
    aids: ['Reach within the line', 'Single pen strokes'],
    ground: 'paper',
    shapes: [
      {
        name: 'm',
        d: 'M280 350C350 330 366 400 360 640C366 470 430 340 510 346C580 352 574 440 566 640C574 470 640 336 724 346C800 356 772 470 770 560C770 640 850 650 910 590',
        paint: ['#2f3e63', '#2f3e63'],
        line: 26,
      },
    ],
  },
  {
    id: 'flower',
    title: 'Six petals round an eye',
    minutes: 5,
    todo: ['Draw one petal.', 'Lay a turn axis with six parts through the eye.', 'The eye is a circle.'],
    aids: ['Turn axis', 'ring copies'],
    ground: 'slate',
    shapes: [
      { name: 'Petals', d: [0, 60, 120, 180, 240, 300].map(petal).join(''), paint: ['#e7c14c', '#c8952e'] },
      { name: 'Eye', d: ellipse(600, 450, 74, 74), paint: ['#6b4a2a', '#4a311a'] },
    ],
  },
  {
    id: 'moon',
    title: 'The moon on the almanac',
    minutes: 4,
    todo: ['A disc, and a second one that bites into it.', 'Bite, or draw both arcs by hand.', 'Two sharp tips, nothing else sharp.'],
    aids: ['Bite', 'handles'],
    ground: 'slate',
    shapes: [
      {
        name: 'Moon',
        d: 'M700 176C540 140 330 250 330 450C330 650 540 760 700 724C560 650 500 560 500 450C500 340 560 250 700 176Z',
        paint: ['#efe3c0', '#cdbd92'],
      },
    ],
  },
  {
    id: 'sign',
    title: 'The sign, squared up first',
    minutes: 6,
    todo: ['The plate is a square: put its four corners right.', 'Then trace plate and sprig as seen straight on.', 'A straight side stays two anchors.'],
    aids: ['Square up', 'Level'],
    ground: 'bench',
    shapes: [
      { name: 'Plate', d: 'M330 180L870 180L870 720L330 720Z', paint: ['#ece2c6', '#d6caa8'] },
      { name: 'Sprig', d: 'M600 640C520 560 440 540 420 420C520 410 590 470 600 560C610 430 680 340 800 330C800 470 720 560 600 640Z', paint: ['#2f6b4f', '#23573f'] },
    ],
    seenAt: [
      [-60, -140],
      [1270, -10],
      [1330, 930],
      [-120, 1010],
    ],
    lens: 0.8,
  },
  {
    id: 'panes',
    title: 'Seven panes without gaps',
    minutes: 7,
    todo: ['Each pane by its corners, no handles.', 'Where two meet, use the same corner twice.', 'Snap to corners that stand already.'],
    aids: ['Snapping', 'shared borders'],
    ground: 'slate',
    shapes: PANES.map(([name, d, light, shade]) => ({ name, d, paint: [light, shade] })),
  },
  {
    id: 'keeper',
    title: 'The keeper’s portrait',
    minutes: 8,
    todo: ['Hair, face, its shade, collar: the largest first.', 'Run what lies beneath under its neighbour.', 'Then fill each with its body tone.'],
    aids: ['Body tone', 'Haze', 'order'],
    ground: 'paper',
    shapes: [
      { name: 'Hair', d: 'M410 420C390 240 500 150 620 156C760 164 830 270 800 430C830 560 800 640 770 660L440 660C410 600 400 520 410 420Z', paint: ['#4a3326', '#3a271c'], toned: true },
      { name: 'Collar', d: 'M300 900C320 760 420 700 540 690L660 690C790 704 880 770 900 900Z', paint: ['#4d7396', '#3f6283'], toned: true },
      { name: 'Neck', d: 'M540 600L660 600L668 720C640 770 560 770 532 720Z', paint: ['#b98259', '#a97449'], toned: true },
      { name: 'Face', d: 'M470 380C480 300 720 300 732 380C744 520 700 640 602 660C504 640 460 520 470 380Z', paint: ['#d9a67c', '#c9936a'], toned: true },
      { name: 'Shade', d: 'M660 326C700 336 728 352 732 380C744 520 700 640 602 660C680 580 690 440 660 326Z', paint: ['#b98259', '#ac764d'], toned: true },
    ],
    over: '<g fill="#3a271c"><circle cx="552" cy="440" r="11"/><circle cx="652" cy="440" r="11"/></g><path d="M560 560C590 576 620 576 648 558" fill="none" stroke="#9c4a3c" stroke-width="9" stroke-linecap="round"/>',
    lens: 0.9,
  },
]; // prettier-ignore
