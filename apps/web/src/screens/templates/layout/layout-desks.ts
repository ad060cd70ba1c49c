import type { LayoutChangesAnswer } from '@mailbag/contract';
import type { Layout } from '@mailbag/core';
import { isWholeInLayout } from '@mailbag/core';
import { api } from '../../../api/client';
import { OpenDesks } from '../../../features/editing/open-desks';

/** Layouts that are drawn. */
export const layoutDesks = new OpenDesks<Layout>({
  name: 'layout',
  isWhole: isWholeInLayout,
  async send(id, changes) {
    const { version, layout, clashes } = await api.post<LayoutChangesAnswer>(`/api/templates/${id}/layout/changes`, { changes });
    return { version, document: layout, clashes };
  },
});
