import { t } from '@mailbag/core/words';
import { loadedPart } from '../../ui/loaded-part';

/** The editor is large, so it comes when something is written. */
export const RichEditor = loadedPart(() => import('./rich-editor'), t`the editor`);
