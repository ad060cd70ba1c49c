import type { SourceRequest } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { ConnectionsService } from '../../databases/connections.service.js';
import type { SourceInput } from '../../work/tasks.js';
import type { SourceEntity } from '../sources.entity.js';
import type { Origin, SourceKind } from './source-kind.js';

/** A query of a foreign database. */
@Injectable()
export class DatabaseKind implements SourceKind {
  readonly kind = 'database';
  readonly isLive = true;
  constructor(private readonly connections: ConnectionsService) {}

  ofRequest({ query }: Pick<SourceRequest, 'query'>): Promise<Origin | null> {
    if (!query) return Promise.resolve(null);
    const { connectionId, sql, parameters } = query;
    return Promise.resolve({ files: [], query: { connectionId, sql, parameters } });
  }

  async input({ name, query }: SourceEntity): Promise<SourceInput> {
    const { connectionId, sql, parameters } = query!;
    return { kind: this.kind, access: await this.connections.access(connectionId), name, sql, parameters };
  }
}
