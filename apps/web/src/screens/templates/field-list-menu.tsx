import { Download } from 'lucide-react';
import { MenuTrigger } from 'react-aria-components';
import { Button } from '../../ui/button';
import { Floating } from '../../ui/choice';
import { MenuItems, MenuLine } from '../../ui/menu';

const formats: [format: string, name: string, says: string][] = [
  ['form', 'The form itself', 'the fillable PDF, for other uses'],
  ['pdf', 'Marked PDF', 'the form with every field’s name in its box, and an index'],
  ['xlsx', 'Spreadsheet (XLSX)', 'a column a field, with drop-downs for choices'],
  ['csv', 'CSV', 'a column a field'],
  ['xfdf', 'XFDF', 'form data, one record a file'],
  ['fdf', 'FDF', 'form data, one record a file'],
  ['xml', 'XML', 'to be filled in by a program'],
  ['json', 'JSON', 'to be filled in by a program'],
];

/** The fields of a template to be taken elsewhere; filled in, each but the marked PDF comes back as records. And the form with its fields. */
export function FieldListMenu({ id, revisionId, fileName }: { id: number; revisionId: number; fileName: string }) {
  return (
    <MenuTrigger>
      <Button small>
        <Download size={14} />
        Field list
      </Button>
      <Floating>
        <MenuItems aria-label="Field list as">
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
