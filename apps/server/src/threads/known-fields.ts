import { templateStore } from '../stores/template.store.js';
import { threadSql } from './worker-database.js';

/** Names of fields that are asked for at most; a sheet is recognised by a few of them. */
const MOST = 20_000;

/** Names of the fields of all templates that are there, which tell columns of names in sheets. */
export const knownFields = async (): Promise<string[]> => (await templateStore.fieldNames(threadSql(), MOST)).map(({ name }) => name);
