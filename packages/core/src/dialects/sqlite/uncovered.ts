/** Functions of SQLite 3.54 that are not covered: JSON, windows, full text, chance and administration. */
export const sqliteUncovered: ReadonlySet<string> = new Set(
  `changes cume_dist current_date current_time current_timestamp dense_rank first_value fts3_tokenizer highlight json
  json_array json_array_insert json_array_length json_error_position json_extract json_group_array json_group_object
  json_insert json_object json_patch json_pretty json_quote json_remove json_replace json_set json_type json_valid
  jsonb jsonb_array jsonb_array_insert jsonb_extract jsonb_group_array jsonb_group_object jsonb_insert jsonb_object
  jsonb_patch jsonb_remove jsonb_replace jsonb_set lag last_insert_rowid last_value lead load_extension match
  matchinfo median nth_value ntile offsets optimize percent_rank percentile random randomblob rank row_number snippet
  sqlite_compileoption_get sqlite_compileoption_used sqlite_log sqlite_offset sqlite_source_id sqlite_version subtype
  total_changes`.split(/\s+/),
);
