/** Functions of PostgreSQL 15 (documentation, chapter 9) that are not covered yet. */
export const postgresqlUncovered: ReadonlySet<string> = new Set(
  `acos acosd acosh age array_agg array_dims array_fill array_ndims array_to_json asin asind asinh atan atan2 atand atanh
  avg bit_count bool_and bool_or cbrt clock_timestamp convert convert_from convert_to corr cos cosd cosh cot cotd count cume_dist
  current_catalog current_date current_role current_schema current_time current_timestamp current_user date_bin date_trunc decode
  degrees dense_rank encode every exists exp factorial first_value gcd gen_random_uuid generate_series generate_subscripts get_bit
  get_byte grouping isempty isfinite json_agg json_array_length json_build_array json_build_object json_extract_path_text
  json_object jsonb_agg jsonb_build_object jsonb_pretty jsonb_set justify_days justify_hours justify_interval lag last_value lcm
  lead ln localtime localtimestamp log log10 lower_inc make_interval make_time make_timestamp make_timestamptz max md5 min
  min_scale mode now nth_value ntile percent_rank percentile_cont percentile_disc pg_client_encoding pg_typeof pi
  radians random rank regexp_matches regexp_split_to_table row row_number row_to_json scale session_user
  set_bit set_byte setseed sha224 sha256 sha384 sha512 sin sind sinh statement_timestamp stddev string_agg string_to_table sum tan
  tand tanh timeofday to_ascii to_json to_jsonb to_timestamp to_tsquery to_tsvector transaction_timestamp trim_scale
  ts_headline ts_rank unnest user variance version width_bucket xmlelement xmlforest xmlserialize xpath`.split(/\s+/),
);
