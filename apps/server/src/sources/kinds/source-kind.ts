import type { SourceRequest } from '@mailbag/contract';
import type { SourceInput, SourceKindName } from '../../work/tasks.js';
import type { SourceEntity } from '../sources.entity.js';

/** What a source keeps of where its records come from. */
export type Origin = Pick<SourceEntity, 'files' | 'query'>;

/** How records of one kind come into a source. A new kind is one file here, one in `threads/kinds` where it is read, and a line in each registry. */
export interface SourceKind {
  kind: SourceKindName;
  /** What changes without anybody telling, so that it is read again before a batch starts. */
  isLive: boolean;
  /** What a request of this kind keeps. @returns null: it is of another kind @throws MailbagError not-found */
  ofRequest(request: Pick<SourceRequest, 'fileIds' | 'query'>): Promise<Origin | null>;
  /** What the thread that reads it is told. */
  input(source: SourceEntity): Promise<SourceInput>;
}
