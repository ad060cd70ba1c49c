import { t } from '@mailbag/core/words';
import type { ExtraFile, PicturePlan } from '@mailbag/contract';
import { MOST_PICTURES, fieldLabel } from '@mailbag/core';
import { useMutation } from '@tanstack/react-query';
import { ImagePlus, X } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { api, sentenceOf } from '../../api/client';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { Button, IconButton } from '../../ui/button';
import { SourcePictures } from '../../features/records/source-pictures';
import { Choice } from '../../ui/choice';
import { Row, Small, Stack } from '../../ui/layout';
import { Mark, Notice } from '../../ui/mark';

const keyOf = ({ template, field }: Pick<PicturePlan, 'template' | 'field'>): string => `${template} ${field}`;

const nameOf = ({ file, column }: PicturePlan): string => file?.name ?? t`the picture that ${column} names`;

/** Pictures that stand in boxes of copies: the same in all of them, such as the signature of the office, or the one that a column names. */
export function PictureSettings({ work, onChange }: { work: MailingWork; onChange: (pictures: PicturePlan[]) => void }) {
  const { plan, mailing, columns } = work;
  const pictures = plan.output.pictures ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const boxes = plan.packet.flatMap((id) => {
    const template = mailing.templates.find((one) => one.id === id);
    return (template?.fieldList ?? [])
      .filter(({ kind }) => kind === 'signature' || kind === 'button')
      .map((field) => ({ template: id, field: field.name, text: fieldLabel(field), detail: template!.name }));
  });
  const box = boxes.find((one) => keyOf(one) === chosen) ?? boxes[0];
  const put = (picture: PicturePlan): void => onChange([...pictures.filter((one) => keyOf(one) !== keyOf(picture)), picture]);
  const { source } = mailing;
  const add = useMutation({
    mutationFn: ({ file }: { file: File; template: number; field: string }) =>
      api.upload<ExtraFile>('/api/mailings/pictures', file, () => undefined),
    onSuccess: (file, { template, field }) => put({ template, field, file }),
  });
  const wordsOf = (picture: PicturePlan): string => boxes.find((one) => keyOf(one) === keyOf(picture))?.text ?? picture.field;
  return (
    <Stack $gap={10}>
      <h2>{t`Pictures`}</h2>
      <Small>
        {boxes.length === 0
          ? t`No template of the packet has a box for a picture, which is a signature field or a picture button.`
          : t`The same in every copy, such as the signature of the office, or the one that a column names for each record. PNG or JPEG.`}
      </Small>
      {box && (
        <Row $gap={10} style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
          <Choice
            label={t`Box`}
            items={boxes.map((one) => ({ id: keyOf(one), text: one.text, detail: one.detail }))}
            value={keyOf(box)}
            onChange={setChosen}
          />
          <FileTrigger
            acceptedFileTypes={['image/png', 'image/jpeg']}
            onSelect={(files) => files?.[0] && add.mutate({ file: files[0], template: box.template, field: box.field })}
          >
            <Button changes isDisabled={add.isPending || pictures.length >= MOST_PICTURES}>
              <ImagePlus size={14} />
              {add.isPending ? t`Uploading …` : t`Choose a picture`}
            </Button>
          </FileTrigger>
          {columns.length > 0 && (
            <Choice
              label={t`Or named by`}
              placeholder={t`a column`}
              items={columns.map(({ name, examples }) => ({ id: name, text: name, detail: examples.slice(0, 3).join(' · ') || t`empty` }))}
              value={pictures.find((one) => keyOf(one) === keyOf(box))?.column ?? null}
              onChange={(column) => put({ template: box.template, field: box.field, column: String(column) })}
            />
          )}
        </Row>
      )}
      {add.error && <Notice tone="brick">{sentenceOf(add.error)}</Notice>}
      {pictures.length > 0 && (
        <Row style={{ flexWrap: 'wrap' }}>
          {pictures.map((picture) => (
            <Mark key={keyOf(picture)} $tone="slate">
              {t`${nameOf(picture)} in ${wordsOf(picture)}`}
              <IconButton
                small
                label={t`Remove ${nameOf(picture)} from ${wordsOf(picture)}`}
                onPress={() => onChange(pictures.filter((one) => keyOf(one) !== keyOf(picture)))}
              >
                <X size={12} />
              </IconButton>
            </Mark>
          ))}
        </Row>
      )}
      {source && pictures.some(({ column }) => column !== undefined) && <SourcePictures sourceId={source.id} count={source.pictures} />}
    </Stack>
  );
}
