/** Functions of PostgreSQL 15 (documentation, chapter 9) that are not covered yet. */
export const postgresqlUncovered: ReadonlySet<string> = new Set(
  `acosd age array_to_json asind atand clock_timestamp corr cosd cotd cume_dist current_catalog current_date
  current_role current_schema current_time current_timestamp current_user date_bin dense_rank first_value
  gen_random_uuid generate_series generate_subscripts grouping isempty json_agg json_array_length json_build_array
  json_build_object json_extract_path_text json_object jsonb_agg jsonb_build_object jsonb_pretty jsonb_set
  justify_days justify_hours justify_interval lag last_value lead localtime localtimestamp lower_inc make_interval
  make_time make_timestamptz mode now nth_value ntile percent_rank percentile_cont percentile_disc pg_client_encoding
  pg_typeof random rank regexp_matches regexp_split_to_table row_number row_to_json session_user setseed sind
  statement_timestamp string_to_table tand timeofday to_ascii to_json to_jsonb to_tsquery to_tsvector
  transaction_timestamp ts_headline ts_rank unnest user version xmlelement xmlforest xmlserialize xpath`.split(/\s+/),
);
