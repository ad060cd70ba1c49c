import { count, counted, plural, t, translated } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import { columnKindName } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { Download, Info } from 'lucide-react';
import { Link } from 'react-router';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { fullWhen } from '../../features/when';
import { color } from '../../theme';
import { Card, Empty, Row, Scroll, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { FileButton } from '../../ui/link-button';
import { Mark, Notice } from '../../ui/mark';
import { Table } from '../../ui/table';

/** How the records came in: what is to be known, the columns, and what the checks of each mailing say. */
export function ImportReportView({ sourceId }: { sourceId: number }) {
  const { data: report, error } = useQuery(queries.importReport(sourceId));
  if (error && !report) return <Empty title={t`The report cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!report) return <Loading what={t`the report`} />;
  return (
    <Scroll>
      <Stack style={{ padding: 16 }}>
        <Row>
          <p
            style={{ margin: 0, flex: 1 }}
          >{phrase`${(<b>{counted(report.count, 'record')}</b>)} came in${report.readAt && t` on ${fullWhen(report.readAt)}`}. ${report.notes.length === 0 && t`Nothing was skipped, and nothing unusual was found.`}`}</p>
          <FileButton $small href={`/api/sources/${sourceId}/report.xlsx`} download>
            <Download size={14} />
            {t`Save the report as a sheet`}
          </FileButton>
        </Row>
        {report.notes.map((note) => (
          <Notice key={note} tone="ochre" icon={<Info size={16} />}>
            {note}
          </Notice>
        ))}
        {report.mailings.map(({ id, name, clean, stopped, looked, leftOut, findings }) => (
          <Card key={id}>
            <h2>
              <Link to={`/mailings/${id}/checks`} style={{ color: color.ink }}>
                {name}
              </Link>
            </h2>
            <div style={{ padding: '0 12px 12px' }}>
              <p
                style={{ margin: '0 0 8px' }}
              >{phrase`${plural(clean, 'record')} came in well, ${count(stopped)} cannot run, ${count(looked)} to look at${leftOut > 0 && t`, ${count(leftOut)} left out`}.`}</p>
              {findings.map((finding) => (
                <Row key={finding.title} style={{ padding: '2px 0' }}>
                  <Mark $tone={finding.severity === 'stop' ? 'brick' : 'ochre'}>{translated(finding.severity)}</Mark>
                  {translated(finding.title)} <Small>{counted(finding.records, 'record')}</Small>
                </Row>
              ))}
            </div>
          </Card>
        ))}
        <Card>
          <h2>{t`Columns`}</h2>
          <Table>
            <thead>
              <tr>
                <th>{t`Column`}</th>
                <th>{t`Kind`}</th>
                <th className="number">{t`Empty`}</th>
                <th className="number">{t`Different`}</th>
                <th>{t`Longest`}</th>
                <th>{t`Such as`}</th>
              </tr>
            </thead>
            <tbody>
              {report.columns.map(({ name, kind, empty, distinct, longest, examples }) => (
                <tr key={name}>
                  <td>{name}</td>
                  <td>{columnKindName(kind)}</td>
                  <td className="number">{count(empty)}</td>
                  <td className="number">{distinct >= 1000 ? t`over 1,000` : count(distinct)}</td>
                  <td>{longest.slice(0, 60)}</td>
                  <td>
                    <Small>{examples.slice(0, 3).join(', ').slice(0, 80)}</Small>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Card>
      </Stack>
    </Scroll>
  );
}
