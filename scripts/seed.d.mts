/** Puts the demo's projects into a running server, each once. */
export function seed(address: string, data: string): Promise<void>;
