import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { queries } from '../../api/queries';
import { AddSource } from '../../features/records/add-source';
import { count, counted, when } from '../../features/when';
import { color } from '../../theme';
import { Empty, Head, Screen, Scroll, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark } from '../../ui/mark';
import { Table } from '../../ui/table';
import { useCrumbs } from '../shell/crumbs';

export default function SourcesScreen() {
  useCrumbs({ text: 'Sources' });
  const { data } = useQuery(queries.sources());
  const navigate = useNavigate();
  if (!data) return <Loading what="sources" />;
  return (
    <Screen>
      <Head title="Sources" note={counted(data.length, 'source')} />
      <div style={{ padding: '0 16px 12px' }}>
        <AddSource onAdded={(id) => void navigate(`/sources/${id}`)} />
      </div>
      <Scroll style={{ background: color.sheet, borderTop: `1px solid ${color.line}` }}>
        {data.length === 0 ? (
          <Empty title="No records yet">
            A source is where records come from: a workbook, a CSV file, form data or a database, one record for each recipient.
          </Empty>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>Name</th>
                <th className="number">Records</th>
                <th className="number">Columns</th>
                <th>Used by</th>
                <th>Read</th>
              </tr>
            </thead>
            <tbody>
              {data.map((one) => (
                <tr key={one.id} data-link onClick={() => void navigate(`/sources/${one.id}`)}>
                  <td>
                    <a
                      href={`/sources/${one.id}`}
                      style={{ fontWeight: 600, color: color.ink, textDecoration: 'none' }}
                      onClick={(event) => {
                        event.preventDefault();
                        event.stopPropagation();
                        void navigate(`/sources/${one.id}`);
                      }}
                    >
                      {one.name}
                    </a>{' '}
                    {one.state === 'reading' && <Mark $tone="ochre">being read</Mark>}
                    {one.state === 'failed' && <Mark $tone="brick">not read</Mark>}{' '}
                    {one.state === 'ready' && one.error && <Mark $tone="brick">could not be read again</Mark>}
                    <br />
                    <Small>
                      {one.query
                        ? `query of ${one.query.connection}`
                        : one.files > 1
                          ? `${one.files} files`
                          : `${one.fileName}${one.reading.sheet ? `, sheet ${one.reading.sheet}` : ''}`}
                      {one.corrections > 0 && ` · ${counted(one.corrections, 'correction')}`}
                    </Small>
                  </td>
                  <td className="number">{count(one.count)}</td>
                  <td className="number">{one.columns.length}</td>
                  <td>{one.usedBy.join(', ') || <Small>no mailing yet</Small>}</td>
                  <td>{when(one.readAt ?? one.createdAt)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
      </Scroll>
    </Screen>
  );
}
