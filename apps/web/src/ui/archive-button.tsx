import { Archive, ArchiveRestore } from 'lucide-react';
import { IconButton } from './button';

/** Puts a thing of a list away, or takes it back. */
export function ArchiveButton({
  name,
  isArchived,
  onArchive,
}: {
  name: string;
  isArchived: boolean;
  onArchive: (isArchived: boolean) => void;
}) {
  return (
    <IconButton changes label={isArchived ? `Take “${name}” back` : `Archive “${name}”`} onPress={() => onArchive(!isArchived)}>
      {isArchived ? <ArchiveRestore size={16} /> : <Archive size={16} />}
    </IconButton>
  );
}
