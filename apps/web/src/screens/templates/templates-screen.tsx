import { plural, t } from '@mailbag/core/words';
import type { TemplateUploadAnswer } from '@mailbag/contract';
import { isMailbagError } from '@mailbag/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FileText } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color, narrow } from '../../theme';
import { Button } from '../../ui/button';
import { DropFiles } from '../../ui/drop';
import { Empty, Head, PartsBar, Row, Screen, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';
import { DeletedNotice } from '../../features/deleting';
import { TemplateTable } from './template-table';

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
  gap: 16px;
  padding: 0 16px 16px;
  min-height: 0;
  flex: 1;
  & > div {
    background: ${color.sheet};
    border: 1px solid ${color.line};
    border-radius: 6px;
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
`;

interface Arrival {
  file: string;
  share: number;
  text: string | null;
  error: boolean;
  /** The file itself where it has no fields but may have blanks that can become some; null: not so. */
  flat: File | null;
}

export default function TemplatesScreen() {
  useCrumbs({ text: t`Templates` });
  const { data } = useQuery(queries.templates());
  const client = useQueryClient();
  const navigate = useNavigate();
  const [arrivals, setArrivals] = useState<Arrival[]>([]);

  const upload = async (files: File[], blanks: 'take' | 'draw' | null = null): Promise<void> => {
    setArrivals(files.map((file) => ({ file: file.name, share: 0, text: null, error: false, flat: null })));
    const tell = (index: number, change: Partial<Arrival>): void =>
      setArrivals((all) => all.map((one, at) => (at === index ? { ...one, ...change } : one)));
    let last: TemplateUploadAnswer | null = null;
    for (const [index, file] of files.entries()) {
      try {
        const answer = await api.upload<TemplateUploadAnswer>(
          blanks ? `/api/templates?blanks=${blanks}` : '/api/templates',
          file,
          (share) => tell(index, { share }),
        );
        last = answer;
        tell(index, {
          share: 1,
          text: answer.known
            ? t`is here already as “${answer.template.name}”.`
            : t`came in with ${plural(answer.template.fields, 'field')}.`,
        });
      } catch (error) {
        const isFlat = isMailbagError(error) && error.code === 'pdf-no-fields';
        tell(index, { share: 1, text: sentenceOf(error), error: true, flat: isFlat ? file : null });
      }
    }
    await client.invalidateQueries({ queryKey: ['templates'] });
    if (files.length === 1 && last && !last.known) void navigate(`/templates/${last.template.id}${blanks === 'draw' ? '/layout' : ''}`);
  };

  if (!data) return <Loading what={t`templates`} />;
  return (
    <Screen>
      <Head title={t`Templates`} />
      <DeletedNotice kind="template" />
      <Columns>
        <div>
          {data.length === 0 ? (
            <Empty
              title={t`No template yet`}
            >{t`A template is a PDF with form fields. Drop one on the right, and you will see all its fields on its pages. A form to be filled by hand will do too: its blanks become fields.`}</Empty>
          ) : (
            <TemplateTable templates={data} />
          )}
        </div>
        <Stack style={{ border: 0, background: 'none', display: 'flex' }}>
          <DropFiles accept={['application/pdf', '.pdf']} label={t`Upload a template`} several onFiles={(files) => void upload(files)}>
            <FileText size={22} style={{ margin: '0 auto 6px' }} />
            {t`Drop PDF forms here`}
          </DropFiles>
          {arrivals.map((one) => (
            <Notice key={one.file} tone={one.error ? 'brick' : 'plain'}>
              {one.error ? (
                <>
                  {one.text}
                  {one.flat && (
                    <div style={{ marginTop: 8 }}>
                      {t`Or give it fields here. Mailbag finds its blanks (lines, boxes, combs, ticks), and you say which become fields.`}
                      <Row style={{ marginTop: 6, flexWrap: 'wrap' }}>
                        <Button changes small look="go" onPress={() => void upload([one.flat!], 'draw')}>{t`Draw its fields`}</Button>
                        <Button changes small onPress={() => void upload([one.flat!], 'take')}>{t`Make fields of its blanks`}</Button>
                      </Row>
                    </div>
                  )}
                </>
              ) : (
                <>
                  <b>{one.file}</b>{' '}
                  {one.text ?? (one.share < 1 ? t`is being uploaded, ${Math.round(one.share * 100)} %` : t`is being read …`)}
                </>
              )}
              {one.text === null && (
                <PartsBar
                  label={`${one.file} ${Math.round(one.share * 100)} %`}
                  total={1}
                  parts={[{ share: one.share, color: color.plum, name: 'sent' }]}
                />
              )}
            </Notice>
          ))}
        </Stack>
      </Columns>
    </Screen>
  );
}
