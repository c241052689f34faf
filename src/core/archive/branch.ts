/** Whether a project was laid beside another, since both of two machines went on from the same: its id says so. */
export const isBranch = (id: string): boolean => /^b[0-9a-f]{15}$/.test(id);
