import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, startServer } from '../scripts/ready.mjs';
import { seed } from '../scripts/seed.mjs';

/** Starts the built application with the demo's projects in a folder of its own, for all tests. */
export default async function setup(): Promise<() => Promise<void>> {
  const data = mkdtempSync(join(tmpdir(), 'mirrot-e2e-'));
  const server = await startServer({ port: await freePort(), data, quiet: true });
  await seed(server.address, data);
  process.env.MIRROT_URL = server.address;
  return async () => {
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  };
}
