/** Functions of MariaDB 10.11 that are not covered: JSON, XML, cryptography, chance, sessions, the clock, addresses. */
export const mariadbUncovered: ReadonlySet<string> = new Set(
  `aes_decrypt aes_encrypt benchmark binlog_gtid_pos bit_and bit_or bit_xor coercibility column_check column_create
  column_exists column_get column_json column_list compress connection_id cume_dist curdate current_date current_time
  current_timestamp current_user curtime database decode decode_histogram decode_oracle default dense_rank des_decrypt
  des_encrypt encode encrypt extractvalue first_value found_rows get_lock inet6_aton inet6_ntoa is_free_lock
  is_ipv4_compat is_ipv4_mapped is_ipv6 is_used_lock json_array json_array_append json_array_insert json_arrayagg
  json_compact json_contains json_contains_path json_depth json_detailed json_equals json_exists json_extract
  json_insert json_keys json_length json_loose json_merge json_merge_patch json_merge_preserve json_normalize
  json_object json_objectagg json_overlaps json_pretty json_query json_quote json_remove json_replace json_search
  json_set json_type json_unquote json_valid json_value lag last_insert_id last_value lead load_file localtime
  localtimestamp master_gtid_wait master_pos_wait match median name_const now nth_value ntile old_password password
  percent_rank percentile_cont percentile_disc rand random_bytes rank release_all_locks release_lock row_count
  row_number schema session_user sleep sys_guid sysdate system_user uncompress uncompressed_length
  updatexml user utc_date utc_time utc_timestamp uuid uuid_short values version weight_string`.split(/\s+/),
);
