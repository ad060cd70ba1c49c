import { t } from '@mailbag/core/words';
import { Download } from 'lucide-react';
import { MenuTrigger } from 'react-aria-components';
import { Button } from '../../ui/button';
import { Floating } from '../../ui/choice';
import { MenuItems, MenuLine } from '../../ui/menu';

const formats: [format: string, name: string, says: string][] = [
  ['form', t`The form itself`, t`the fillable PDF, for other uses`],
  ['pdf', t`Marked PDF`, t`the form with every field’s name in its box, and an index`],
  ['xlsx', t`Spreadsheet (XLSX)`, t`one column per field, with drop-downs for choices`],
  ['csv', 'CSV', t`one column per field`],
  ['xfdf', 'XFDF', t`form data, one record per file`],
  ['fdf', 'FDF', t`form data, one record per file`],
  ['xml', 'XML', t`to be filled in by a program`],
  ['json', 'JSON', t`to be filled in by a program`],
];

/** The fields of a template to be taken elsewhere; filled in, each but the marked PDF comes back as records. And the form with its fields. */
export function FieldListMenu({ id, revisionId, fileName }: { id: number; revisionId: number; fileName: string }) {
  return (
    <MenuTrigger>
      <Button small>
        <Download size={14} />
        {t`Field list`}
      </Button>
      <Floating>
        <MenuItems aria-label={t`Field list as`}>
          {formats.map(([format, name, says]) => (
            <MenuLine
              key={format}
              href={
                format === 'form'
                  ? `/api/templates/${id}/pdf?revision=${revisionId}`
                  : `/api/templates/${id}/fields/${format}?revision=${revisionId}`
              }
              download={format === 'form' ? fileName : true}
              textValue={name}
            >
              <span>
                {name}
                <small>{says}</small>
              </span>
            </MenuLine>
          ))}
        </MenuItems>
      </Floating>
    </MenuTrigger>
  );
}
