import { byName } from "../shared/uncovered.ts";

/** Functions that SQLite 3.54 has and that are not covered, by why; kept with `npm run catalogue`, which asks the engine. */
export const sqliteUncovered = byName({
  JSON: `-> ->> json json_array json_array_insert json_array_length json_error_position json_extract json_group_array
    json_group_object json_insert json_object json_patch json_pretty json_quote json_remove json_replace json_set
    json_type json_valid jsonb jsonb_array jsonb_array_insert jsonb_extract jsonb_group_array jsonb_group_object
    jsonb_insert jsonb_object jsonb_patch jsonb_remove jsonb_replace jsonb_set`,
  administration: `load_extension sqlite_compileoption_get sqlite_compileoption_used sqlite_log sqlite_offset sqlite_source_id
    sqlite_version subtype`,
  aggregates: `median`,
  chance: `random randomblob`,
  "full text": `fts3_tokenizer highlight matchinfo offsets optimize snippet`,
  "the clock and the connection": `changes current_date current_time current_timestamp last_insert_rowid total_changes`,
  windows: `cume_dist dense_rank first_value lag last_value lead nth_value ntile percent_rank percentile rank row_number`,
});
