/** How rows can be written. */
export const rowFormats = ["table", "csv", "tsv", "json", "ndjson", "parquet", "arrow"] as const;
export type RowFormat = (typeof rowFormats)[number];
