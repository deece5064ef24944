import { byName } from "../shared/uncovered.ts";

/** Functions of SQL:2023 that are not covered, by why. */
export const sqlUncovered = byName({
  JSON: `json_array json_arrayagg json_exists json_object json_objectagg json_query json_scalar json_serialize json_table
    json_value`,
  aggregates: `array_agg collect corr covar_pop covar_samp fusion grouping intersection listagg regr_avgx regr_count some stddev_pop
    stddev_samp var_pop var_samp`,
  "arrays, multisets and other types": `array cardinality convert element max_cardinality multiset translate trim_array unnest value`,
  "the clock and the session": `current_catalog current_date current_default_transform_group current_path current_role current_schema
    current_time current_timestamp current_user localtime localtimestamp session_user system_user user`,
  "windows and ordered sets": `cume_dist dense_rank first_value lag last_value lead nth_value ntile percent_rank percentile_cont
    percentile_disc rank row_number width_bucket`,
});
