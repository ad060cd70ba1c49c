import Database from 'libsql';

type Way = (...parameters: unknown[]) => unknown;

/** A single parameter that is null is taken by libsql for an object with named ones; in a list it is what it is. */
const asList = (parameters: unknown[]): unknown[] => (parameters.length === 1 && parameters[0] === null ? [[null]] : parameters);

/** SQLite as TypeORM drives it. */
export class Driver extends Database {
  constructor(...given: ConstructorParameters<typeof Database>) {
    super(...given);
    const prepare = this.prepare.bind(this) as unknown as (source: string) => Record<string, Way>;
    this.prepare = ((source: string) => {
      const statement = prepare(source);
      for (const way of ['run', 'get', 'all', 'iterate']) {
        const plain = statement[way]!.bind(statement);
        statement[way] = (...parameters) => plain(...asList(parameters));
      }
      return statement;
    }) as unknown as typeof this.prepare;
  }
}
