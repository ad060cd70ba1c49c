import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { queries } from '../../api/queries';
import { fullWhen } from '../../features/when';
import { TextInput } from '../../ui/field';
import { Card, Empty, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Table } from '../../ui/table';

/** Who did what. */
export default function HistoryPart() {
  const [text, setText] = useState('');
  const { data } = useQuery(queries.history(text));
  return (
    <Stack>
      <div style={{ width: 320 }}>
        <TextInput label="Search the history" hideLabel placeholder="Who, what, about what" value={text} onChange={setText} />
      </div>
      {!data ? (
        <Loading what="the history" />
      ) : data.length === 0 ? (
        <Empty title="No matches">Every change is written down here with who did it.</Empty>
      ) : (
        <Card>
          <Table>
            <thead>
              <tr>
                <th>When</th>
                <th>Who</th>
                <th>What</th>
                <th>About</th>
              </tr>
            </thead>
            <tbody>
              {data.map((line) => (
                <tr key={line.id}>
                  <td>{fullWhen(line.at)}</td>
                  <td>{line.who}</td>
                  <td>
                    {line.action} {line.subject}
                  </td>
                  <td>{line.detail}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Card>
      )}
    </Stack>
  );
}
