import { t } from '@mailbag/core/words';
import { Archive, ArchiveRestore } from 'lucide-react';
import { Button, IconButton } from './button';

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
    <IconButton changes label={isArchived ? t`Restore “${name}”` : t`Archive “${name}”`} onPress={() => onArchive(!isArchived)}>
      {isArchived ? <ArchiveRestore size={16} /> : <Archive size={16} />}
    </IconButton>
  );
}

/** The same with all rows that are picked in a list. @param isInArchive they are put away already */
export function ArchivePicked({ isInArchive, isBusy, onPress }: { isInArchive: boolean; isBusy: boolean; onPress: () => void }) {
  return (
    <Button changes small isDisabled={isBusy} onPress={onPress}>
      {isInArchive ? <ArchiveRestore size={14} /> : <Archive size={14} />}
      {isInArchive ? t`Restore` : t`Archive`}
    </Button>
  );
}

/** Shows what is put away, where anything is. */
export function ArchivedSwitch({ count, isOn, onSwitch }: { count: number; isOn: boolean; onSwitch: (isOn: boolean) => void }) {
  if (count === 0) return null;
  return (
    <Button small pressed={isOn} onPress={() => onSwitch(!isOn)}>
      <Archive size={14} />
      {t`Archived ${count}`}
    </Button>
  );
}
