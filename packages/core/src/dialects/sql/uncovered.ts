/** Functions of SQL:2023 that are not covered: aggregates, windows, arrays, JSON, intervals, times and sessions. */
export const sqlUncovered: ReadonlySet<string> = new Set(
  `array array_agg cardinality collect convert corr covar_pop covar_samp cume_dist current_catalog current_date
  current_default_transform_group current_path current_role current_schema current_time current_timestamp current_user
  dense_rank element first_value fusion grouping intersection json_array json_arrayagg json_exists json_object
  json_objectagg json_query json_scalar json_serialize json_table json_value lag last_value lead localtime
  localtimestamp max_cardinality multiset nth_value ntile percent_rank percentile_cont percentile_disc rank regr_avgx
  regr_count row_number session_user some stddev_pop stddev_samp system_user translate trim_array unnest user value
  var_pop var_samp width_bucket`.split(/\s+/),
);
