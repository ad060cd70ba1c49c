import { count, t } from '@mailbag/core/words';
import type { ListedRecord } from '@mailbag/contract';
import { Link } from 'react-router';
import styled from 'styled-components';
import { color } from '../../../theme';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
  & td {
    padding: 4px 8px 4px 0;
    border-top: 1px solid ${color.hair};
    overflow-wrap: anywhere;
    vertical-align: top;
  }
  & td:last-child {
    color: ${color.faded};
    white-space: nowrap;
    text-align: right;
    padding-right: 0;
  }
`;

/** Records, each with what tells it from others, and a way to its place on the map. */
export function RecordList({
  mailing,
  label,
  records,
  lead,
}: {
  mailing: number;
  label: string;
  records: readonly ListedRecord[];
  /** What stands in front of each. */
  lead?: (record: ListedRecord) => React.ReactNode;
}) {
  return (
    <Table aria-label={label}>
      <tbody>
        {records.map((record) => (
          <tr key={record.index}>
            {lead && <td style={{ width: 26 }}>{lead(record)}</td>}
            <td>
              <b style={{ fontWeight: 600 }}>{record.key || t`Row ${count(record.row)}`}</b> {record.about}
            </td>
            <td>{record.address}</td>
            <td>
              <Link to={`/mailings/${mailing}/map?record=${record.index}`}>{t`row ${count(record.row)}`}</Link>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
