export const ROOT: string;
export function freePort(): Promise<number>;
export function startServer(options: {
  port: number;
  host?: string;
  data: string;
  quiet?: boolean;
}): Promise<{ address: string; stop(): Promise<void>; ended: Promise<void> }>;
