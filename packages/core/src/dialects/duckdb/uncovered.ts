import { byName } from "../shared/uncovered.ts";

/** Functions that DuckDB 1.5 has and that are not covered, by why; kept with `npm run catalogue`, which asks the engine. */
export const duckdbUncovered = byName({
  JSON: `->> array_to_json from_json from_json_strict json json_array json_array_length json_contains
    json_deserialize_sql json_each json_execute_serialized_sql json_exists json_extract json_extract_path
    json_extract_path_text json_extract_string json_group_array json_group_object json_group_structure json_keys
    json_merge_patch json_object json_pretty json_quote json_serialize_plan json_serialize_sql json_structure
    json_transform json_transform_strict json_tree json_type json_valid json_value read_json read_json_auto
    read_json_objects read_json_objects_auto read_ndjson read_ndjson_auto read_ndjson_objects row_to_json to_json`,
  administration: `__internal_compress_integral_ubigint __internal_compress_integral_uinteger
    __internal_compress_integral_usmallint __internal_compress_integral_utinyint __internal_compress_string_hugeint
    __internal_compress_string_ubigint __internal_compress_string_uhugeint __internal_compress_string_uinteger
    __internal_compress_string_usmallint __internal_compress_string_utinyint __internal_decompress_integral_bigint
    __internal_decompress_integral_hugeint __internal_decompress_integral_integer
    __internal_decompress_integral_smallint __internal_decompress_integral_ubigint
    __internal_decompress_integral_uhugeint __internal_decompress_integral_uinteger
    __internal_decompress_integral_usmallint __internal_decompress_string add_parquet_key alias all_profiling_output
    array_to_string_comma_default array_zip arrow_scan arrow_scan_dumb can_cast_implicitly cardinality cast_to_type
    check_peg_parser checkpoint col_description combine constant_or_null copy_database create_sort_key
    current_catalog current_connection_id current_database current_query current_query_id current_role
    current_schema current_schemas current_setting current_transaction_id current_user currval database_list
    database_size disable_checkpoint_on_shutdown disable_logging disable_object_cache disable_optimizer
    disable_peg_parser disable_print_progress_bar disable_profile disable_profiling disable_progress_bar
    disable_verification disable_verify_external disable_verify_fetch_row disable_verify_parallelism
    disable_verify_serializer duckdb_columns duckdb_constraints duckdb_coordinate_systems duckdb_databases
    duckdb_dependencies duckdb_extensions duckdb_external_file_cache duckdb_functions duckdb_indexes duckdb_keywords
    duckdb_log_contexts duckdb_logs duckdb_logs_parsed duckdb_memory duckdb_optimizers duckdb_prepared_statements
    duckdb_profiling_settings duckdb_schemas duckdb_secret_types duckdb_secrets duckdb_sequences duckdb_settings
    duckdb_table_sample duckdb_tables duckdb_temporary_files duckdb_types duckdb_variables duckdb_views
    enable_checkpoint_on_shutdown enable_logging enable_object_cache enable_optimizer enable_peg_parser
    enable_print_progress_bar enable_profile enable_profiling enable_progress_bar enable_verification
    equi_width_bins error extension_versions finalize force_checkpoint format_pg_type format_type functions
    generate_subscripts get_block_size get_type getvariable has_any_column_privilege has_column_privilege
    has_database_privilege has_foreign_data_wrapper_privilege has_function_privilege has_schema_privilege
    has_sequence_privilege has_server_privilege has_table_privilege has_tablespace_privilege import_database
    in_search_path inet_client_addr inet_client_port inet_server_addr inet_server_port list_zip make_type
    metadata_info nextafter nextval obj_description parquet_bloom_probe parquet_file_metadata parquet_full_metadata
    parquet_kv_metadata parquet_metadata parquet_scan parquet_schema pg_conversion_is_visible pg_function_is_visible
    pg_get_constraintdef pg_get_expr pg_get_viewdef pg_has_role pg_is_other_temp_schema pg_my_temp_schema
    pg_opclass_is_visible pg_operator_is_visible pg_opfamily_is_visible pg_size_pretty pg_sleep pg_table_is_visible
    pg_ts_config_is_visible pg_ts_dict_is_visible pg_ts_parser_is_visible pg_ts_template_is_visible
    pg_type_is_visible platform pragma_database_size pragma_metadata_info pragma_platform pragma_show
    pragma_table_info pragma_version query query_table read_blob read_csv read_csv_auto read_duckdb read_parquet
    read_text regexp_split_to_table repeat_row replace_type sem seq_scan session_user shobj_description show
    show_databases show_tables show_tables_expanded sleep_ms sniff_csv sql_auto_complete st_asbinary st_astext
    st_aswkb st_aswkt st_crs st_intersects_extent st_setcrs stats switch table_info test_all_types
    truncate_duckdb_logs txid_current unnest unpivot_list user verify_external verify_fetch_row verify_parallelism
    verify_serializer version which_secret write_log`,
  aggregates: `approx_count_distinct approx_top_k arg_max arg_max_null arg_max_nulls_last arg_min arg_min_null
    arg_min_nulls_last argmax argmin corr count_if count_star countif covar_pop covar_samp
    duckdb_approx_database_count duckdb_connection_count entropy favg fsum geomean geometric_mean histogram
    histogram_exact histogram_values is_histogram_other_bin kahan_sum kurtosis kurtosis_pop
    list_approx_count_distinct list_entropy list_histogram list_kurtosis list_kurtosis_pop list_mad list_skewness
    mad max_by median min_by mode regr_avgx regr_avgy regr_count regr_intercept regr_r2 regr_slope regr_sxx regr_sxy
    regr_syy skewness st_geomfromwkb sum_no_overflow sumkahan summary wavg weighted_avg`,
  chance: `gen_random_uuid random setseed uuid uuid_extract_timestamp uuid_extract_version uuidv4 uuidv7`,
  "collations of languages": `collations icu_calendar_names icu_collate_af icu_collate_am icu_collate_ar icu_collate_ar_sa icu_collate_as
    icu_collate_az icu_collate_be icu_collate_bg icu_collate_bn icu_collate_bo icu_collate_br icu_collate_bs
    icu_collate_ca icu_collate_ceb icu_collate_chr icu_collate_cs icu_collate_cy icu_collate_da icu_collate_de
    icu_collate_de_at icu_collate_dsb icu_collate_dz icu_collate_ee icu_collate_el icu_collate_en icu_collate_en_us
    icu_collate_eo icu_collate_es icu_collate_et icu_collate_fa icu_collate_fa_af icu_collate_ff icu_collate_fi
    icu_collate_fil icu_collate_fo icu_collate_fr icu_collate_fr_ca icu_collate_ga icu_collate_gl icu_collate_gu
    icu_collate_ha icu_collate_haw icu_collate_he icu_collate_he_il icu_collate_hi icu_collate_hr icu_collate_hsb
    icu_collate_hu icu_collate_hy icu_collate_id icu_collate_id_id icu_collate_ig icu_collate_is icu_collate_it
    icu_collate_ja icu_collate_ka icu_collate_kk icu_collate_kl icu_collate_km icu_collate_kn icu_collate_ko
    icu_collate_kok icu_collate_ku icu_collate_ky icu_collate_lb icu_collate_lkt icu_collate_ln icu_collate_lo
    icu_collate_lt icu_collate_lv icu_collate_mk icu_collate_ml icu_collate_mn icu_collate_mr icu_collate_ms
    icu_collate_mt icu_collate_my icu_collate_nb icu_collate_nb_no icu_collate_ne icu_collate_nl icu_collate_nn
    icu_collate_noaccent icu_collate_om icu_collate_or icu_collate_pa icu_collate_pa_in icu_collate_pl
    icu_collate_ps icu_collate_pt icu_collate_ro icu_collate_ru icu_collate_sa icu_collate_se icu_collate_si
    icu_collate_sk icu_collate_sl icu_collate_smn icu_collate_sq icu_collate_sr icu_collate_sr_ba icu_collate_sr_me
    icu_collate_sr_rs icu_collate_sv icu_collate_sw icu_collate_ta icu_collate_te icu_collate_th icu_collate_tk
    icu_collate_to icu_collate_tr icu_collate_ug icu_collate_uk icu_collate_ur icu_collate_uz icu_collate_vi
    icu_collate_wae icu_collate_wo icu_collate_xh icu_collate_yi icu_collate_yo icu_collate_yue icu_collate_yue_cn
    icu_collate_zh icu_collate_zh_cn icu_collate_zh_hk icu_collate_zh_mo icu_collate_zh_sg icu_collate_zh_tw
    icu_collate_zu icu_sort_key pg_collation_is_visible pragma_collations`,
  "digests as numbers": `hash md5_number_lower md5_number_upper`,
  operators: `!__postfix !~~ !~~* ** <-> <=> @ ~~ ~~* ~~~`,
  "strings of bits": `bit_position bitstring bitstring_agg get_bit list_bit_and list_bit_or list_bit_xor set_bit`,
  "structs, maps, unions and enumerations": `element_at enum_code enum_first enum_last enum_range enum_range_boundary map map_concat map_contains
    map_contains_entry map_contains_value map_entries map_extract map_extract_value map_from_entries map_keys
    map_to_pg_oid map_values remap_struct row struct_concat struct_contains struct_extract struct_extract_at
    struct_has struct_indexof struct_insert struct_keys struct_pack struct_position struct_update struct_values
    union_extract union_tag union_value variant_bytes_to_variant variant_extract variant_normalize
    variant_to_parquet_variant variant_typeof`,
  "the clock": `current_date current_localtime current_localtimestamp current_time current_timestamp get_current_time
    get_current_timestamp localtime localtimestamp now today transaction_timestamp`,
  "times and zones": `ago date_bin has_language_privilege make_time make_timestamp_ms make_timestamp_ns
    make_timestamptz normalized_interval parse_duckdb_log_message pg_conf_load_time pg_postmaster_start_time
    pg_timezone_names pragma_storage_info pragma_user_agent storage_info time_bucket timetz_byte_comparable timezone
    timezone_hour timezone_minute to_timestamp user_agent`,
  vectors: `array_cosine_distance array_cosine_similarity array_cross_product array_distance array_dot_product
    array_inner_product array_negative_dot_product array_negative_inner_product array_value list_cosine_distance
    list_cosine_similarity list_distance list_dot_product list_inner_product list_negative_dot_product
    list_negative_inner_product test_vector_types vector_type`,
  windows: `approx_quantile cume_dist dense_rank fill first_value lag last_value lead nth_value ntile percent_rank quantile
    quantile_cont quantile_disc rank rank_dense reservoir_quantile row_number`,
});
