/** What class-transformer has noted of types, which a description of classes is made from. */
declare module 'class-transformer/cjs/storage.js' {
  export const defaultMetadataStorage: unknown;
}
