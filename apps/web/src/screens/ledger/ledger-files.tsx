import { t } from '@mailbag/core/words';
import { Download } from 'lucide-react';
import { FileButton } from '../../ui/link-button';

const files = [
  ['copies.zip', t`Files`],
  ['ledger.csv', 'CSV'],
  ['ledger.xlsx', 'XLSX'],
] as const;

/** What a filter of the ledger leaves, as files to be saved. */
export function LedgerFiles({ query }: { query: URLSearchParams }) {
  return files.map(([name, words]) => (
    <FileButton key={name} $small href={`/api/copies/${name}?${query.toString()}`} download>
      <Download size={13} />
      {words}
    </FileButton>
  ));
}
