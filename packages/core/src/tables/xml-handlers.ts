/** Attributes of an element by their names as written. */
export type Attributes = Record<string, string>;
/** What is told of XML while it is read; names are local ones. */
export interface Handlers {
  open?(name: string, attributes: Attributes): void;
  text?(text: string): void;
  close?(name: string): void;
}
