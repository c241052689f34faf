/** The newest schema of a preset's content. It stands apart from the schema itself, which pages need not carry. */
export const CONTENT_SCHEMA = 1;
