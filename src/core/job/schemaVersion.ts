/** The shape jobs are written in. By itself, so that a page can name it without the schemas. */
export const SCHEMA_VERSION = 1;
