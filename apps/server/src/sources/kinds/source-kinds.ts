import type { SourceRequest } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import type { SourceKindName } from '../../work/tasks.js';
import { DatabaseKind } from './database-kind.js';
import { FileKind } from './file-kind.js';
import { IntakeKind } from './intake-kind.js';
import type { Origin, SourceKind } from './source-kind.js';

/** The kinds of sources, by their names. */
@Injectable()
export class SourceKinds {
  private readonly kinds: readonly SourceKind[];
  constructor(file: FileKind, database: DatabaseKind, intake: IntakeKind) {
    this.kinds = [file, database, intake];
  }

  of(name: SourceKindName): SourceKind {
    return this.kinds.find(({ kind }) => kind === name)!;
  }

  /** What a request keeps, and of which kind it is. @throws MailbagError request-wrong when it names neither files nor anything else, not-found */
  async ofRequest(request: Pick<SourceRequest, 'fileIds' | 'query'>): Promise<Origin & { kind: SourceKindName }> {
    for (const known of this.kinds) {
      const origin = await known.ofRequest(request);
      if (origin) return { ...origin, kind: known.kind };
    }
    throw new MailbagError('request-wrong', { why: t`a source needs a file or a query` });
  }
}
