import { count, t, translated } from '@mailbag/core/words';
import type { CourseSpan, Happenings } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color, font } from '../../theme';
import { Choice } from '../../ui/choice';
import { Card, Empty } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { useAddress } from '../../ui/use-address';
import { HeadRow } from './head-row';
import { partAddress, partLabel, partWords, sumOf } from './course-parts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip);
Chart.defaults.font.family = font.text;
Chart.defaults.font.size = 12;
Chart.defaults.color = color.faded;

const Box = styled.div`
  flex: 1;
  min-height: 0;
  padding: 0 12px 10px;
  position: relative;
`;
const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches;

const series: { key: keyof Happenings; ink: string; always: boolean }[] = [
  { key: 'made', ink: '#A9B4BE', always: true },
  { key: 'sent', ink: color.plum, always: true },
  { key: 'bounced', ink: color.brick, always: true },
  { key: 'printed', ink: color.slate, always: false },
  { key: 'returned', ink: color.lagoon, always: false },
];
const spanNames: Record<CourseSpan, string> = {
  days: t`The last three weeks`,
  weeks: t`The last 16 weeks`,
  year: t`The last 12 months`,
};
const isSpan = (text: string | null): text is CourseSpan => text !== null && Object.hasOwn(spanNames, text);

/** Copies made, sent and bounced over the last days, weeks or months. A bar opens the copies that changed in its time. */
export function CourseCard() {
  const { query, put } = useAddress();
  const navigate = useNavigate();
  const asked = query.get('over');
  const span: CourseSpan = isSpan(asked) ? asked : 'days';
  const { data, error } = useQuery(queries.course(span));
  const parts = data?.parts ?? [];
  const [made, sent, bounced] = (['made', 'sent', 'bounced'] as const).map((key) => count(sumOf(parts, key)));
  const set = (key: keyof Happenings, background: string) => ({
    label: `${translated(key)} ${count(sumOf(parts, key))}`,
    data: parts.map((one) => one[key]),
    backgroundColor: background,
    borderRadius: 2,
    barPercentage: 0.9,
    categoryPercentage: 0.8,
  });
  return (
    <Card>
      <HeadRow style={{ paddingTop: 8, paddingBottom: 6 }}>
        <h2>{t`What happened`}</h2>
        <Choice
          label={t`Over`}
          hideLabel
          small
          items={Object.entries(spanNames).map(([id, text]) => ({ id, text }))}
          value={span}
          onChange={(over) => put({ over: over === 'days' ? null : over })}
        />
      </HeadRow>
      {!data && !error && <Loading what={t`what happened`} />}
      {!data && error && <Empty title={t`This cannot be shown`}>{sentenceOf(error)}</Empty>}
      {data && (
        <Box>
          <Bar
            aria-label={t`${spanNames[data.span]}: ${made} copies made, ${sent} sent, ${bounced} bounced`}
            role="img"
            data={{
              labels: parts.map((one) => partLabel(data.span, one)),
              datasets: series.filter(({ key, always }) => always || sumOf(parts, key) > 0).map(({ key, ink }) => set(key, ink)),
            }}
            options={{
              maintainAspectRatio: false,
              animation: calm ? false : { duration: 150 },
              onClick: (_, [bar]) => {
                const part = bar && parts[bar.index];
                if (part) void navigate(partAddress(part));
              },
              scales: {
                x: { grid: { display: false }, ticks: { maxRotation: 0, autoSkipPadding: 14 } },
                y: {
                  beginAtZero: true,
                  ticks: { precision: 0, maxTicksLimit: 5 },
                  grid: { color: color.hair },
                  border: { display: false },
                },
              },
              plugins: {
                legend: { position: 'bottom', labels: { boxWidth: 8, boxHeight: 8, padding: 14 } },
                tooltip: { callbacks: { title: ([item]) => (item ? partWords(data.span, parts[item.dataIndex]!) : '') } },
              },
            }}
          />
        </Box>
      )}
    </Card>
  );
}
