// What one small change costs the server, by how much the drawing holds: there and back over HTTP with the disk's
// promise, and the work in it, beside the plain way (the whole drawing checked, written out and stored with every change).
import { applyChecked, artText, holdingsOf, readArt, seeded, type Patch } from '@mirrot/core';
import {
  crowdedProject,
  getArt,
  newFolder,
  nudge,
  pause,
  post,
  removeFolder,
  start,
  usage,
} from '../hard/harness';
import { row, time } from './table';

const SIZES = [100, 1000, 5000];
const CHANGES = 400;
const WARM = 200;

console.log('One small change on the server, ms (ours, the plain way, ratio):');
for (const shapes of SIZES) {
  const data = newFolder();
  const server = await start(data);
  const { id, revision: first } = await crowdedProject(server.address, shapes);
  const { art } = await getArt(server.address, id);
  const random = seeded(shapes);
  let revision = first;
  const change = async (): Promise<void> => {
    const { patches, note } = nudge(Math.floor(random() * shapes), random() * 100);
    const body = { base: revision, changes: [patches], notes: [note] };
    const answer = await post(server.address, `/api/projects/${id}/changes`, body);
    revision = (answer!.json() as { revision: number }).revision;
  };
  for (let k = 0; k < WARM; k++) await change();
  await pause(6000);
  const before = usage(server);
  const began = performance.now();
  for (let k = 0; k < CHANGES; k++) await change();
  const each = (performance.now() - began) / CHANGES;
  const after = usage(server);
  await server.stop();
  removeFolder(data);

  // The same change, the core's part of it: where it touches, and all of it.
  const holdings = holdingsOf(art);
  const { patches } = nudge(Math.floor(shapes / 2), 5);
  const touched = time(() => void applyChecked(art, patches as Patch[], holdings), 20);
  const whole = time(() => {
    const next = JSON.parse(JSON.stringify(art)) as typeof art;
    readArt(next);
    JSON.stringify(next);
  }, 5);
  row(`checked, ${shapes} shapes`, touched, whole, 'read, checked and written out whole');
  artText(art);
  const again = time(() => void artText(applyChecked(art, patches as Patch[], holdings).art), 5);
  row(
    `written out, ${shapes} shapes`,
    again,
    time(() => void JSON.stringify(art), 5),
    'JSON.stringify',
  );
  const cpu = ((after.cpu - before.cpu) * 1000) / CHANGES;
  const written = (after.written - before.written) / CHANGES / 1000;
  console.log(
    `  there and back, ${shapes} shapes`.padEnd(36),
    `${each.toFixed(2)} ms, processor ${cpu.toFixed(2)} ms, written ${written.toFixed(1)} kB`,
  );
}
