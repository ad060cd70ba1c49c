import { t } from '@mailbag/core/words';
import type { PicturePlan } from '@mailbag/contract';
import type { IntakeQuestion } from '@mailbag/core';
import { columnsOf, fieldLabel } from '@mailbag/core';
import { PenLine, X } from 'lucide-react';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Row, Small, Stack } from '../../ui/layout';
import { Mark } from '../../ui/mark';
import type { IntakeWork } from './intake-work';
import { WithMailing } from './with-mailing';

const keyOf = ({ template, field }: Pick<PicturePlan, 'template' | 'field'>): string => `${template} ${field}`;

interface Props {
  question: IntakeQuestion;
  work: IntakeWork;
  onDraw: () => void;
}

/** The boxes of the forms in which a signature, initials or a picture stand. */
export function PicturePlaces({ question, work: { intake, document: plan }, onDraw }: Props) {
  const columns = new Set(columnsOf(plan, question));
  return (
    <WithMailing id={intake.mailingId} part="questions">
      {({ plan: mailing, mailing: { templates }, change }) => {
        const pictures = mailing.output.pictures ?? [];
        const set = (next: PicturePlan[]): void => change((before) => ({ ...before, output: { ...before.output, pictures: next } }));
        const boxes = mailing.packet.flatMap((id) => {
          const template = templates.find((one) => one.id === id);
          return (template?.fieldList ?? [])
            .filter(({ kind }) => kind === 'signature' || kind === 'button')
            .map((field) => ({
              template: id,
              field: field.name,
              text: fieldLabel(field),
              detail: t`${template!.name}, page ${field.page}`,
            }));
        });
        const own = pictures.filter(({ column }) => column !== undefined && columns.has(column));
        const free = boxes.filter((box) => !pictures.some((one) => keyOf(one) === keyOf(box)));
        return (
          <Stack $gap={6} role="group" aria-label={t`Where it stands`}>
            <Row style={{ flexWrap: 'wrap' }}>
              <Small>{own.length === 0 ? t`It is nowhere on the forms yet.` : t`Stands in`}</Small>
              {own.map((picture) => {
                const box = boxes.find((one) => keyOf(one) === keyOf(picture));
                return (
                  <Mark key={keyOf(picture)} $tone="slate">
                    {box ? `${box.text} · ${box.detail}` : picture.field}
                    <IconButton
                      small
                      changes
                      label={t`Not in ${box?.text ?? picture.field}`}
                      onPress={() => set(pictures.filter((one) => keyOf(one) !== keyOf(picture)))}
                    >
                      <X size={12} />
                    </IconButton>
                  </Mark>
                );
              })}
            </Row>
            <Row style={{ flexWrap: 'wrap' }}>
              {free.length > 0 && (
                <Choice
                  label={t`Also in`}
                  hideLabel
                  small
                  placeholder={t`Also in a box of the form`}
                  items={free.map((box) => ({ id: keyOf(box), text: box.text, detail: box.detail }))}
                  value={null}
                  onChange={(key) => {
                    const box = free.find((one) => keyOf(one) === key);
                    if (box) set([...pictures, { template: box.template, field: box.field, column: question.column }]);
                  }}
                />
              )}
              <Button small changes onPress={onDraw}>
                <PenLine size={14} />
                {t`Draw a box for it`}
              </Button>
            </Row>
          </Stack>
        );
      }}
    </WithMailing>
  );
}
