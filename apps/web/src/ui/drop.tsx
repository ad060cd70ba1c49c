import { t } from '@mailbag/core/words';
import { Upload } from 'lucide-react';
import type { ReactNode } from 'react';
import { DropZone, FileTrigger } from 'react-aria-components';
import type { DropItem } from 'react-aria-components';
import styled from 'styled-components';
import { color } from '../theme';
import { Button } from './button';

const Zone = styled(DropZone)`
  border: 1.5px dashed ${color.line};
  border-radius: 8px;
  background: ${color.sheet};
  padding: 20px;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 10px;
  text-align: center;
  color: ${color.faded};
  &[data-drop-target] {
    border-color: ${color.plum};
    background: ${color.plumWash};
  }
`;

/** The files of what was dropped; folders give all that is in them. */
async function filesIn(items: readonly DropItem[]): Promise<File[]> {
  const files: File[] = [];
  const take = async (item: DropItem): Promise<void> => {
    if (item.kind === 'file') files.push(await item.getFile());
    else if (item.kind === 'directory') for await (const inside of item.getEntries()) await take(inside);
  };
  for (const item of items) await take(item);
  return files;
}

/** Takes files by drop or by a chooser. */
export function DropFiles({
  accept,
  label,
  several,
  onFiles,
  children,
}: {
  accept: string[];
  label: string;
  several?: boolean;
  onFiles: (files: File[]) => void;
  children: ReactNode;
}) {
  return (
    <Zone
      aria-label={t`Drop files here`}
      onDrop={(event) => {
        void filesIn(event.items).then((taken) => taken.length > 0 && onFiles(taken));
      }}
    >
      <div>{children}</div>
      <FileTrigger
        acceptedFileTypes={accept}
        allowsMultiple={several}
        onSelect={(files) => files && files.length > 0 && onFiles([...files])}
      >
        <Button changes look="go">
          <Upload size={16} />
          {label}
        </Button>
      </FileTrigger>
    </Zone>
  );
}
