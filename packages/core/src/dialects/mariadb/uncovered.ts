import { byName } from "../shared/uncovered.ts";

/** Functions that MariaDB 10.11 has and that are not covered, by why; kept with `npm run catalogue`, which asks the engine. */
export const mariadbUncovered = byName({
  JSON: `column_json json_array json_array_append json_array_insert json_arrayagg json_compact json_contains
    json_contains_path json_depth json_detailed json_equals json_exists json_extract json_insert json_keys
    json_length json_loose json_merge json_merge_patch json_merge_preserve json_normalize json_object json_objectagg
    json_overlaps json_pretty json_query json_quote json_remove json_replace json_search json_set json_type
    json_unquote json_valid json_value`,
  XML: `extractvalue updatexml`,
  administration: `benchmark binlog_gtid_pos connection_id database found_rows get_lock is_free_lock is_used_lock last_insert_id
    load_file master_gtid_wait master_pos_wait release_all_locks release_lock row_count schema schemas session_user
    sleep system_user user version wsrep_last_seen_gtid wsrep_last_written_gtid wsrep_sync_wait_upto_gtid`,
  aggregates: `bit_and bit_or bit_xor`,
  chance: `rand random_bytes sys_guid uuid uuid_short`,
  "cryptography and compression": `aes_decrypt aes_encrypt compress decode decode_histogram decode_oracle des_decrypt des_encrypt encode encrypt
    old_password password uncompress uncompressed_length`,
  "dynamic columns": `column_check column_create column_exists column_get column_list`,
  "network addresses": `inet6_aton inet6_ntoa is_ipv4_compat is_ipv4_mapped is_ipv6`,
  "the clock": `curdate current_date current_time current_timestamp current_user curtime localtime localtimestamp now sysdate
    utc_date utc_time utc_timestamp`,
  "what depends on a table or on the inside of a text": `coercibility default match name_const values weight_string`,
  windows: `cume_dist dense_rank first_value lag last_value lead median nth_value ntile percent_rank percentile_cont
    percentile_disc rank row_number`,
});
