import type { Account, ConnectionAnswer, ConnectionRequest, DatabaseTable, QueryExcerpt, QueryRequest } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { History } from '../history/history.service.js';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { assertTarget } from '../platform/targets.js';
import { sealedFor, targetOf } from '../platform/stored-secret.js';
import { unseal } from '../platform/secret-box.js';
import type { FileKey } from '../files/file-key.js';
import { fileName as nameOf, pathOf } from '../files/file-key.js';
import { remove, rename } from '../files/files.js';
import { uploadedFile } from '../files/upload.js';
import { Pool } from '../work/pool.js';
import { ConnectionEntity } from './connections.entity.js';
import type { DatabaseAccess } from '../readers/reader.js';
import { assertSqlite } from '../readers/sqlite.js';
import { sourceStore } from '../stores/source.store.js';

/** What is needed to enter a database, as it is kept. */
type Reachable = Pick<ConnectionEntity, 'kind' | 'host' | 'port' | 'databaseName' | 'user' | 'sealed' | 'tls' | 'fileId'>;

const placeOf = ({ kind, host, port, tls, fileId }: Pick<Reachable, 'kind' | 'host' | 'port' | 'tls' | 'fileId'>): string =>
  kind === 'sqlite' ? `file ${fileId}` : `${host}:${port}${tls === 1 ? ' (TLS)' : ''}`;

@Injectable()
export class ConnectionsService {
  constructor(
    @InjectRepository(ConnectionEntity) private readonly connections: Repository<ConnectionEntity>,
    private readonly transactions: Transactions,
    private readonly pool: Pool,
    private readonly history: History,
  ) {}

  private async find(id: number): Promise<ConnectionEntity> {
    const found = await this.connections.findOneBy({ id });
    if (!found) throw new MailbagError('not-found', { what: t`connection` });
    return found;
  }

  /** @throws MailbagError database-host-refused when the server may not be reached, target-local */
  private async assertAllowed(kind: string, host: string, port: number): Promise<void> {
    const { databaseHosts } = config;
    if (kind === 'sqlite') return;
    const name = host.toLowerCase();
    if (databaseHosts.length > 0 && !databaseHosts.includes(name) && !databaseHosts.includes(`${name}:${port}`))
      throw new MailbagError('database-host-refused', { host });
    await assertTarget(host, port);
  }

  /** How the database is entered, for the thread that reads it. @throws MailbagError database-host-refused, target-local, not-found */
  async access(id: number): Promise<DatabaseAccess> {
    return this.accessOf(await this.find(id));
  }

  private async accessOf({ kind, host, port, databaseName, user, sealed, tls, fileId }: Reachable): Promise<DatabaseAccess> {
    await this.assertAllowed(kind, host, port);
    return {
      kind,
      host,
      port,
      databaseName,
      user,
      password: sealed ? unseal(sealed) : '',
      tls: tls === 1,
      path: fileId ? pathOf(uploadedFile(fileId)) : null,
    };
  }

  private async answer({ id, name, kind, host, port, databaseName, user, sealed, tls }: ConnectionEntity): Promise<ConnectionAnswer> {
    const used = await sourceStore.namesByConnection(this.transactions, id);
    return {
      id,
      name,
      kind,
      host,
      port,
      databaseName,
      user,
      hasPassword: sealed !== '',
      tls: tls === 1,
      usedBy: used.map((one) => one.name),
    };
  }

  /** Keeps an uploaded SQLite file. @throws MailbagError database-not-a-file, database-text-encoding */
  async takeFile(key: FileKey, fileName: string): Promise<{ fileId: string; fileName: string }> {
    try {
      assertSqlite(pathOf(key), fileName);
    } catch (error) {
      await remove(key);
      throw error;
    }
    const fileId = nameOf(key);
    await rename(key, uploadedFile(fileId));
    return { fileId, fileName };
  }

  async list(): Promise<ConnectionAnswer[]> {
    return Promise.all((await this.connections.find({ order: { name: 'ASC' } })).map((one) => this.answer(one)));
  }

  /** What a request comes to beside what is kept. @throws MailbagError secret-asked-again, account-not-allowed */
  private wanted(request: ConnectionRequest, before: ConnectionEntity | null, by: Account): Reachable {
    const { kind, host, port, databaseName, user, password, tls, fileId } = request;
    // A file that was uploaded is read without anybody's password; a server is entered with one, so leading there is not for everybody.
    if ((kind !== 'sqlite' || (before !== null && before.kind !== 'sqlite')) && by.role !== 'administrator')
      throw new MailbagError('account-not-allowed', { role: 'administrator' });
    const there = { kind, host: host.trim(), port, tls: tls ? 1 : 0, fileId: fileId ?? before?.fileId ?? null };
    const stored = before && { sealed: before.sealed, target: targetOf(before.kind, placeOf(before)) };
    return {
      ...there,
      databaseName: databaseName.trim(),
      user,
      sealed: sealedFor(password, stored, targetOf(kind, placeOf(there)), there.host || 'the database'),
    };
  }

  /** Keeps a connection after it has worked. @throws MailbagError database-*, target-local, secret-asked-again, account-not-allowed */
  async save(id: number | null, request: ConnectionRequest, by: Account): Promise<ConnectionAnswer> {
    const before = id === null ? null : await this.find(id);
    const values = { ...this.wanted(request, before, by), name: request.name.trim() };
    await this.tablesOf(values);
    const saved = await this.transactions.run((manager) =>
      manager.save(ConnectionEntity, { ...(before ?? { createdAt: new Date().toISOString() }), ...values }),
    );
    if (before && placeOf(before) !== placeOf(saved))
      await this.history.note(t`pointed a database elsewhere`, saved.name, `${placeOf(before)} → ${placeOf(saved)}`);
    return this.answer(saved);
  }

  /** Signs in and lists the tables: the test of a connection. @throws MailbagError database-*, target-local */
  private async tablesOf(one: Reachable): Promise<DatabaseTable[]> {
    return this.pool.run('databaseTables', { access: await this.accessOf(one) });
  }

  /** Tries a connection that is not kept yet. @throws MailbagError database-*, target-local, secret-asked-again, account-not-allowed */
  async test(request: ConnectionRequest, by: Account): Promise<DatabaseTable[]> {
    return this.tablesOf(this.wanted(request, null, by));
  }

  async tables(id: number): Promise<DatabaseTable[]> {
    return this.pool.run('databaseTables', { access: await this.access(id) });
  }

  async excerpt(id: number, { sql, parameters }: QueryRequest): Promise<QueryExcerpt> {
    return this.pool.run('queryExcerpt', { access: await this.access(id), sql, parameters });
  }

  /** @throws MailbagError connection-in-use, account-not-allowed, not-found */
  async assertMayGo(id: number, by: Account): Promise<void> {
    const found = await this.find(id);
    if (found.kind !== 'sqlite' && by.role !== 'administrator') throw new MailbagError('account-not-allowed', { role: 'administrator' });
    const { name, usedBy } = await this.answer(found);
    if (usedBy.length > 0) throw new MailbagError('connection-in-use', { connection: name, sources: usedBy });
  }

  /** Deletes it for good, with the file that was uploaded. @throws MailbagError connection-in-use by sources in the wastebasket */
  async erase(id: number): Promise<void> {
    const found = await this.connections.findOne({ where: { id }, withDeleted: true });
    const sources = (await sourceStore.namesByConnection(this.transactions, id, true)).map(({ name }) => name);
    if (found && sources.length > 0) throw new MailbagError('connection-in-use', { connection: found.name, sources });
    await this.transactions.run((manager) => manager.delete(ConnectionEntity, { id }));
    if (found?.fileId) await remove(uploadedFile(found.fileId));
  }
}
