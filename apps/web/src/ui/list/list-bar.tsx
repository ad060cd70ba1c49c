import { t } from '@mailbag/core/words';
import { Columns3, Download, Printer, Search, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { MenuTrigger } from 'react-aria-components';
import { color } from '../../theme';
import { IconButton } from '../button';
import { Floating } from '../choice';
import { TextInput } from '../field';
import { Bar, Small } from '../layout';
import { MenuItems, MenuLine } from '../menu';

interface Props {
  label: string;
  /** What may be looked for; null: the list is not searched here. */
  searchHint: string | null;
  wanted: string;
  onWanted: (text: string) => void;
  /** How many there are. */
  says: string;
  /** What can be done with what is picked; null: nothing is picked. */
  withPicked: ReactNode;
  pickedSays: string;
  onClear: () => void;
  /** Instead of how many there are. */
  lead: ReactNode;
  tools: ReactNode;
  /** Columns that can be put away, and whether they are shown. */
  columns: readonly { id: string; head: string; isShown: boolean }[];
  onColumns: (shown: ReadonlySet<string>) => void;
  /** null: what is seen is exported elsewhere. */
  onSave: (() => void) | null;
}

/** Above a list: what is looked for, how many there are, what can be done with those that are picked, columns, and the way out. */
export function ListBar({
  label,
  searchHint,
  wanted,
  onWanted,
  says,
  withPicked,
  pickedSays,
  onClear,
  lead,
  tools,
  columns,
  onColumns,
  onSave,
}: Props) {
  const shown = columns.filter(({ isShown }) => isShown).map(({ id }) => id);
  return (
    <Bar data-print="no">
      {searchHint !== null && (
        <>
          <Search size={15} color={color.faded} />
          <div style={{ flex: '0 1 240px', minWidth: 140 }}>
            <TextInput label={t`Search the ${label}`} hideLabel placeholder={searchHint} value={wanted} onChange={onWanted} />
          </div>
        </>
      )}
      {withPicked === null ? (
        (lead ?? (
          <Small role="status" style={{ whiteSpace: 'nowrap' }}>
            {says}
          </Small>
        ))
      ) : (
        <>
          <Small role="status" style={{ whiteSpace: 'nowrap', color: color.ink }}>
            {pickedSays}
          </Small>
          {withPicked}
          <IconButton label={t`Pick none`} onPress={onClear}>
            <X size={15} />
          </IconButton>
        </>
      )}
      <div className="fill" />
      {tools}
      {columns.length > 0 && (
        <MenuTrigger>
          <IconButton label={t`Columns`}>
            <Columns3 size={16} />
          </IconButton>
          <Floating>
            <MenuItems
              aria-label={t`Columns`}
              selectionMode="multiple"
              selectedKeys={shown}
              onSelectionChange={(keys) =>
                onColumns(keys === 'all' ? new Set(columns.map(({ id }) => id)) : new Set([...keys].map(String)))
              }
            >
              {columns.map(({ id, head, isShown }) => (
                <MenuLine key={id} id={id} textValue={head}>
                  <input type="checkbox" checked={isShown} readOnly tabIndex={-1} aria-hidden style={{ accentColor: color.plum }} />
                  {head}
                </MenuLine>
              ))}
            </MenuItems>
          </Floating>
        </MenuTrigger>
      )}
      <MenuTrigger>
        <IconButton label={t`Save or print the list`}>
          <Download size={16} />
        </IconButton>
        <Floating>
          <MenuItems aria-label={t`Save or print the list`}>
            {onSave && (
              <MenuLine id="csv" textValue={t`Save as CSV`} onAction={onSave}>
                <Download size={15} />
                <span>
                  {t`Save as CSV`}
                  <small>{t`the rows and columns that are shown, in this order`}</small>
                </span>
              </MenuLine>
            )}
            <MenuLine id="print" textValue={t`Print`} onAction={() => setTimeout(() => window.print())}>
              <Printer size={15} />
              {t`Print`}
            </MenuLine>
          </MenuItems>
        </Floating>
      </MenuTrigger>
    </Bar>
  );
}
