// A thread of its own: packs a project into a bundle, and takes bundles apart, which is many megabytes at once.
import { parentPort, workerData } from 'node:worker_threads';
import { readBundles, writeBundle, writeZip, type Bundle } from '@mirrot/core';

export type BundleWork =
  | { readonly kind: 'write'; readonly bundle: Bundle }
  | { readonly kind: 'zip'; readonly files: Parameters<typeof writeZip>[0] }
  | { readonly kind: 'read'; readonly bytes: Uint8Array };

export type BundleAnswer =
  | { readonly bytes: Uint8Array }
  | { readonly bundles: readonly Bundle[] }
  | { readonly refused: { readonly code: string; readonly message: string } };

const work = workerData as BundleWork;
let answer: BundleAnswer;
try {
  answer =
    work.kind === 'read'
      ? { bundles: readBundles(work.bytes) }
      : { bytes: work.kind === 'write' ? writeBundle(work.bundle) : writeZip(work.files) };
} catch (error) {
  const { code = 'bundle', message } = error as { code?: string; message: string };
  answer = { refused: { code, message } };
}
parentPort!.postMessage(answer);
