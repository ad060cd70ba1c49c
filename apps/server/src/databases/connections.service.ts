import { rename, rm } from 'node:fs/promises';
import { basename } from 'node:path';
import type { ConnectionAnswer, ConnectionRequest, DatabaseTable, QueryExcerpt, QueryRequest } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { seal, unseal } from '../platform/secret-box.js';
import { uploadedFile } from '../platform/upload.js';
import { Pool } from '../work/pool.js';
import { ConnectionEntity } from './connections.entity.js';
import type { DatabaseAccess } from './read/reader.js';
import { assertSqlite } from './read/sqlite.js';

/** What is needed to enter a database, as it is kept. */
type Reachable = Pick<ConnectionEntity, 'kind' | 'host' | 'port' | 'databaseName' | 'user' | 'sealed' | 'tls' | 'fileId'>;

@Injectable()
export class ConnectionsService {
  constructor(
    @InjectRepository(ConnectionEntity) private readonly connections: Repository<ConnectionEntity>,
    private readonly transactions: Transactions,
    private readonly pool: Pool,
  ) {}

  private async find(id: number): Promise<ConnectionEntity> {
    const found = await this.connections.findOneBy({ id });
    if (!found) throw new MailbagError('not-found', { what: 'connection' });
    return found;
  }

  /** @throws MailbagError database-host-refused when the server may not be reached */
  private assertAllowed(kind: string, host: string, port: number): void {
    const { databaseHosts } = config;
    if (kind === 'sqlite' || databaseHosts.length === 0) return;
    const name = host.toLowerCase();
    if (!databaseHosts.includes(name) && !databaseHosts.includes(`${name}:${port}`))
      throw new MailbagError('database-host-refused', { host });
  }

  /** How the database is entered, for the thread that reads it. @throws MailbagError database-host-refused, not-found */
  async access(id: number): Promise<DatabaseAccess> {
    return this.accessOf(await this.find(id));
  }

  private accessOf({ kind, host, port, databaseName, user, sealed, tls, fileId }: Reachable): DatabaseAccess {
    this.assertAllowed(kind, host, port);
    return {
      kind,
      host,
      port,
      databaseName,
      user,
      password: sealed ? unseal(sealed) : '',
      tls: tls === 1,
      path: fileId ? uploadedFile(fileId) : null,
    };
  }

  private async answer({ id, name, kind, host, port, databaseName, user, sealed, tls }: ConnectionEntity): Promise<ConnectionAnswer> {
    const used = await this.transactions.read<{ name: string }>(
      "SELECT name FROM source WHERE json_extract(query, '$.connectionId') = ? ORDER BY name",
      [id],
    );
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
  async takeFile(path: string, fileName: string): Promise<{ fileId: string; fileName: string }> {
    try {
      assertSqlite(path, fileName);
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
    const fileId = basename(path);
    await rename(path, uploadedFile(fileId));
    return { fileId, fileName };
  }

  async list(): Promise<ConnectionAnswer[]> {
    return Promise.all((await this.connections.find({ order: { name: 'ASC' } })).map((one) => this.answer(one)));
  }

  /** Keeps a connection after it has worked. @throws MailbagError database-* */
  async save(id: number | null, request: ConnectionRequest): Promise<ConnectionAnswer> {
    const { name, kind, host, port, databaseName, user, password, tls, fileId } = request;
    const before = id === null ? null : await this.find(id);
    const values = {
      name: name.trim(),
      kind,
      host: host.trim(),
      port,
      databaseName: databaseName.trim(),
      user,
      sealed: password === undefined ? (before?.sealed ?? '') : password === '' ? '' : seal(password),
      tls: tls ? 1 : 0,
      fileId: fileId ?? before?.fileId ?? null,
    };
    await this.tablesOf(values);
    const saved = await this.transactions.run((manager) =>
      manager.save(ConnectionEntity, { ...(before ?? { createdAt: new Date().toISOString() }), ...values }),
    );
    return this.answer(saved);
  }

  /** Signs in and lists the tables: the test of a connection. @throws MailbagError database-* */
  private tablesOf(one: Reachable): Promise<DatabaseTable[]> {
    return this.pool.run('databaseTables', { access: this.accessOf(one) });
  }

  /** Tries a connection that is not kept yet. @throws MailbagError database-* */
  async test(
    { kind, host, port, databaseName, user, password, tls, fileId }: ConnectionRequest,
    id: number | null,
  ): Promise<DatabaseTable[]> {
    const before = id === null ? null : await this.find(id);
    const sealed = password === undefined ? (before?.sealed ?? '') : password === '' ? '' : seal(password);
    return this.tablesOf({
      kind,
      host: host.trim(),
      port,
      databaseName,
      user,
      sealed,
      tls: tls ? 1 : 0,
      fileId: fileId ?? before?.fileId ?? null,
    });
  }

  async tables(id: number): Promise<DatabaseTable[]> {
    return this.pool.run('databaseTables', { access: await this.access(id) });
  }

  async excerpt(id: number, { sql, parameters }: QueryRequest): Promise<QueryExcerpt> {
    return this.pool.run('queryExcerpt', { access: await this.access(id), sql, parameters });
  }

  /** @throws MailbagError connection-in-use, not-found */
  async remove(id: number): Promise<void> {
    const { name, usedBy } = await this.answer(await this.find(id));
    if (usedBy.length > 0) throw new MailbagError('connection-in-use', { connection: name, sources: usedBy });
    const { fileId } = await this.find(id);
    await this.transactions.run((manager) => manager.delete(ConnectionEntity, { id }));
    if (fileId) await rm(uploadedFile(fileId), { force: true });
  }
}
