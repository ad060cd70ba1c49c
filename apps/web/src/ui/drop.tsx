import { Upload } from 'lucide-react';
import type { ReactNode } from 'react';
import { DropZone, FileTrigger } from 'react-aria-components';
import type { FileDropItem } from 'react-aria-components';
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
      aria-label="Drop files here"
      onDrop={(event) => {
        const files = event.items.filter((item): item is FileDropItem => item.kind === 'file');
        void Promise.all(files.map((item) => item.getFile())).then((taken) => taken.length > 0 && onFiles(taken));
      }}
    >
      <div>{children}</div>
      <FileTrigger
        acceptedFileTypes={accept}
        allowsMultiple={several}
        onSelect={(files) => files && files.length > 0 && onFiles([...files])}
      >
        <Button look="go">
          <Upload size={16} />
          {label}
        </Button>
      </FileTrigger>
    </Zone>
  );
}
