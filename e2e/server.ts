import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, startServer } from '../scripts/ready.mjs';
import { seed } from '../scripts/seed.mjs';

/** Where the demo's data lies that every worker's server begins from. */
export const TEMPLATE = 'MIRROT_TEMPLATE';

/** Seeds the demo's projects once, into a folder that each worker copies. */
export default async function setup(): Promise<() => Promise<void>> {
  const data = mkdtempSync(join(tmpdir(), 'mirrot-e2e-'));
  const server = await startServer({ port: await freePort(), data, quiet: true });
  await seed(server.address, data);
  await server.stop();
  process.env[TEMPLATE] = data;
  return async () => rmSync(data, { recursive: true, force: true });
}
