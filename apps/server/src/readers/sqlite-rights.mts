import type { Sqlite3Static } from '@sqlite.org/sqlite-wasm';

/** Functions that a query may call: those that work on values, and no others. What a newer engine brings is refused until it stands here. */
const functions = new Set(
  `-> ->> abs acos acosh asin asinh atan atan2 atanh avg bm25 ceil ceiling changes char coalesce concat concat_ws cos cosh count cume_dist
   current_date current_time current_timestamp date datetime degrees dense_rank exp first_value floor format glob group_concat hex highlight
   if ifnull iif instr json json_array json_array_length json_extract json_group_array json_group_object json_insert json_object json_patch
   json_pretty json_quote json_remove json_replace json_set json_type json_valid julianday lag last_value lead length like likelihood likely ln
   log log10 log2 lower ltrim match max median min mod nth_value ntile nullif octet_length percent_rank percentile percentile_cont
   percentile_disc pi pow power printf quote radians random rank replace round row_number rtrim sign sin sinh snippet sqrt strftime string_agg
   substr substring sum tan tanh time timediff total trim trunc typeof unhex unicode unistr unixepoch unlikely upper`.split(/\s+/),
);
/** Tables of the engine itself that show more than rows: raw pages, its own byte code. */
const hidden = new Set(['sqlite_dbpage', 'dbstat', 'bytecode', 'tables_used', 'sqlite_stmt']);

/**
 * Lets a connection read rows and call the functions above, and nothing else (SQLite, “Compile-Time Authorization Callbacks”).
 * @returns why the last statement was refused; empty: it was not
 */
export function onlyReads({ capi }: Sqlite3Static, database: number): () => string {
  let why = '';
  const refuse = (reason: string): number => {
    why = reason;
    return capi.SQLITE_DENY;
  };
  capi.sqlite3_set_authorizer(
    database as never,
    (_, action, first, second) => {
      switch (action) {
        case capi.SQLITE_SELECT:
        case capi.SQLITE_RECURSIVE:
          return capi.SQLITE_OK;
        case capi.SQLITE_READ:
          return hidden.has(String(first).toLowerCase()) ? refuse(`${String(first)} is no table of the file`) : capi.SQLITE_OK;
        case capi.SQLITE_FUNCTION:
          return functions.has(String(second).toLowerCase()) ? capi.SQLITE_OK : refuse(`the function ${String(second)} is not allowed`);
        case capi.SQLITE_PRAGMA:
          return first === 'table_info' ? capi.SQLITE_OK : refuse('it does more than read');
        default:
          return refuse('it does more than read');
      }
    },
    0 as never,
  );
  return () => why;
}
