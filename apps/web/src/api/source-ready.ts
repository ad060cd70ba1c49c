import type { SourceSummary } from '@mailbag/contract';
import { api } from './client';

/** Milliseconds between two looks. */
const LOOK = 300;

/** Waits until a source has been read, also where it could not be. */
export async function sourceReady(id: number): Promise<SourceSummary> {
  for (;;) {
    const source = await api.get<SourceSummary>(`/api/sources/${id}`);
    if (source.state !== 'reading') return source;
    await new Promise((done) => setTimeout(done, LOOK));
  }
}
