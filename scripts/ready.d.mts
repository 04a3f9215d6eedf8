import type { ChildProcess } from 'node:child_process';

export const ROOT: string;
export interface StartedServer {
  readonly address: string;
  /** Where it is reached from this machine. */
  readonly here: string;
  readonly process: ChildProcess;
  stop(): Promise<number | string>;
  readonly ended: Promise<number | string>;
}
export function freePort(): Promise<number>;
export function buildApp(): void;
export function startServer(options: {
  port: number;
  host?: string;
  data: string;
  quiet?: boolean;
  env?: Record<string, string>;
  spawned?: (process: ChildProcess) => void;
}): Promise<StartedServer>;
