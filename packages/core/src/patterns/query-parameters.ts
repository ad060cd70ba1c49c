/** Pieces of SQL that hold no statement: strings, quoted names, comments, PostgreSQL's dollar quotes. */
export const VERBATIM = /'(?:[^']|'')*'|"(?:[^"]|"")*"|`[^`]*`|--[^\n]*|\/\*[\s\S]*?\*\/|\$([A-Za-z_]\w*)?\$[\s\S]*?\$\1\$/g;
/** A name after a colon, with what stands before it; two colons are a cast. */
export const PARAMETER = /(^|[^:\w]):([A-Za-z_]\w*)/g;

/** Names of the parameters of a query, in their order. */
export function parameterNames(sql: string): string[] {
  return [...new Set([...sql.replace(VERBATIM, ' ').matchAll(PARAMETER)].map((found) => found[2]!))];
}
