import { plural, t } from '@mailbag/core/words';
import type { SourcePicturesAnswer } from '@mailbag/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { zip } from 'fflate';
import { FolderOpen, ImagePlus, X } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { Button } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { PictureGrid } from './picture-grid';

const isPicture = ({ name }: File): boolean => /\.(png|jpe?g)$/i.test(name);

/** Several files as one zip, which travels in one piece; pictures are small already, so they are not packed. */
async function zipOf(files: readonly File[]): Promise<File> {
  const parts = await Promise.all(files.map(async (file) => [file.name, new Uint8Array(await file.arrayBuffer())] as const));
  const bytes = await new Promise<Uint8Array>((done, fail) =>
    zip(Object.fromEntries(parts), { level: 0 }, (error, made) => (error ? fail(error) : done(made))),
  );
  return new File([bytes as BlobPart], 'pictures.zip', { type: 'application/zip' });
}

/** The pictures that came with the records of a source, for columns that name them: a zip, single ones or a folder are added. */
export function SourcePictures({ sourceId, count }: { sourceId: number; count: number }) {
  const client = useQueryClient();
  const [share, setShare] = useState(0);
  const renew = (): Promise<void> => client.invalidateQueries({ queryKey: ['sources'] });
  const add = useMutation({
    mutationFn: async (files: readonly File[]) => {
      const [one] = files;
      const sent = files.length === 1 ? one! : await zipOf(files);
      return api.upload<SourcePicturesAnswer>(`/api/sources/${sourceId}/pictures`, sent, setShare);
    },
    onSuccess: renew,
  });
  const clear = useMutation({ mutationFn: () => api.remove(`/api/sources/${sourceId}/pictures`), onSuccess: renew });
  const take = (files: FileList | null, only: (file: File) => boolean): void => {
    const chosen = [...(files ?? [])].filter(only);
    setShare(0);
    if (chosen.length > 0) add.mutate(chosen);
  };
  const failure = add.error ?? clear.error;
  const { data: answer } = add;
  return (
    <Stack $gap={8}>
      <Small>
        {count === 0
          ? t`No pictures came with these records yet. A column that names one, such as “ada.jpg” or just “ada”, puts it into a box of the form.`
          : t`${plural(count, 'picture')} came with these records. One of the same name takes the place of the one before.`}
      </Small>
      <Row style={{ flexWrap: 'wrap' }}>
        <FileTrigger
          allowsMultiple
          acceptedFileTypes={['image/png', 'image/jpeg', 'application/zip', '.zip']}
          onSelect={(files) => take(files, () => true)}
        >
          <Button changes small isDisabled={add.isPending}>
            <ImagePlus size={14} />
            {t`Add pictures or a zip`}
          </Button>
        </FileTrigger>
        <FileTrigger acceptDirectory onSelect={(files) => take(files, isPicture)}>
          <Button changes small isDisabled={add.isPending} tip={t`All PNG and JPEG files in it`}>
            <FolderOpen size={14} />
            {t`Add a folder`}
          </Button>
        </FileTrigger>
        {count > 0 && (
          <Confirm
            title={t`Remove all pictures?`}
            text={t`Records that name one are stopped by the checks until it is there again. Batches that have begun keep theirs.`}
            yes={t`Remove all`}
            onYes={() => clear.mutate()}
          >
            <Button changes small look="bare">
              <X size={14} />
              {t`Remove all`}
            </Button>
          </Confirm>
        )}
      </Row>
      {add.isPending && <Notice tone="plain">{share < 1 ? t`Uploading, ${Math.round(share * 100)} %` : t`They are being read …`}</Notice>}
      {failure && <Notice tone="brick">{sentenceOf(failure)}</Notice>}
      {answer && (
        <Notice tone={answer.refusedCount > 0 ? 'ochre' : 'plain'}>
          {t`${plural(answer.taken, 'picture')} came in.`}
          {answer.refusedCount > 0 && t` ${plural(answer.refusedCount, 'file')} left out. ${answer.refused.slice(0, 5).join('; ')}.`}
        </Notice>
      )}
      {count > 0 && <PictureGrid sourceId={sourceId} count={count} />}
    </Stack>
  );
}
