/*
 * What a document holds at the most, whichever way it comes to it: by a schema, by steps, by merging or by a file. Far more
 * than is needed, and few enough to be heard, planned and drawn.
 */

/** Plugins, sections and splits in a chain, wherever in it. */
export const MOST_NODES = 256;

/** Strips of a project. */
export const MOST_STRIPS = 2000;

/** Sends of a strip. */
export const MOST_SENDS = 64;

/** Mixes that are kept of one project. */
export const MOST_MIXES = 500;

/** Views that are kept of one project. */
export const MOST_VIEWS = 100;

/** Times that plugins were relieved, to be put back. */
export const MOST_RELIEFS = 200;

/** Plugins that are relieved at once. */
export const MOST_RELIEVED = 10_000;

/** Tags on a card. */
export const MOST_TAGS = 60;

/** Folders that refer to one sound beside its home. */
export const MOST_REFERRING = 20;

/** Letters of the notes on a card. */
export const MOST_NOTES = 10_000;

/** Letters that a list is narrowed by. */
export const MOST_NARROWING = 200;

/** Sounds that are chosen, and changed in one step. */
export const MOST_AT_ONCE = 5000;

/** Near copies that are put into another at once. */
export const MOST_MERGED = 500;

/** Names that ask to be mended, of which as many come in one go. */
export const NAMES_A_PAGE = 50;
