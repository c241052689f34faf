/** Where the interface's ids come from: keys of plugins, ids of steps. */
export const mintKey = (): string => crypto.randomUUID().slice(0, 18);
