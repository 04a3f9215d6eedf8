/** Puts the demo's projects into a running server, each once. */
export function seed(address: string, data: string, key?: string): Promise<void>;
