import { createRequire } from 'node:module';

/** OpenCV, once it is ready. In an object: it is thenable by itself, and waiting for it would never end. */
export async function loadOpenCv<T extends object>(): Promise<{ readonly cv: T }> {
  const loaded = createRequire(import.meta.url)('@techstark/opencv-js') as T & {
    Mat?: unknown;
    onRuntimeInitialized?: () => void;
  };
  const cv = loaded instanceof Promise ? ((await loaded) as T) : loaded;
  if (!('Mat' in cv)) await new Promise<void>((done) => (loaded.onRuntimeInitialized = done));
  return { cv };
}
