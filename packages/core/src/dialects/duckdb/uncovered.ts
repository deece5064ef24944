/** Functions of DuckDB 1.5 that are not covered: JSON, structs and maps, cryptography, chance, the clock and administration. */
export const duckdbUncovered: ReadonlySet<string> = new Set(
  `age alias arg_max arg_min array_cosine_distance array_cosine_similarity array_cross_product array_distance
  array_inner_product array_value array_zip bitstring cast_to_type combine count_if create_sort_key cume_dist
  current_catalog current_database current_date current_query current_schema current_schemas current_setting
  current_time current_timestamp currval date_bin dense_rank element_at enum_code enum_first enum_last enum_range
  equi_width_bins error first_value gen_random_uuid get_bit get_current_timestamp getvariable hash histogram json
  json_array json_array_length json_contains json_exists json_extract json_extract_path json_extract_string json_keys
  json_object json_quote json_structure json_transform json_type json_valid json_value lag last_value lead list_zip
  localtime localtimestamp make_time make_timestamptz map map_concat map_contains map_entries map_extract
  map_from_entries map_keys map_values max_by median min_by mode nextafter nextval now ntile percent_rank quantile
  quantile_cont random rank reservoir_quantile row_number row_to_json set_bit setseed stats struct_extract
  struct_insert struct_pack time_bucket timezone to_days to_hours to_json to_months to_timestamp to_years today
  transaction_timestamp txid_current union_extract union_tag union_value unnest uuid uuidv4 uuidv7 version`.split(/\s+/),
);
