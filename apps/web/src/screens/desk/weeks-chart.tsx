import { spokenLocale, t } from '@mailbag/core/words';
import type { DeskAnswer } from '@mailbag/contract';
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import styled from 'styled-components';
import { color, font } from '../../theme';

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
const day = new Intl.DateTimeFormat(spokenLocale(), { day: 'numeric', month: 'short' });
const weekday = new Intl.DateTimeFormat(spokenLocale(), { weekday: 'long', day: 'numeric', month: 'long' });
const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches;

type Counted = 'made' | 'sent' | 'bounced' | 'printed' | 'returned';
const series: { key: Counted; ink: string; always: boolean }[] = [
  { key: 'made', ink: '#A9B4BE', always: true },
  { key: 'sent', ink: color.plum, always: true },
  { key: 'bounced', ink: color.brick, always: true },
  { key: 'printed', ink: color.slate, always: false },
  { key: 'returned', ink: color.lagoon, always: false },
];

/** Copies made, sent and bounced on each of the last days. */
export function WeeksChart({ days }: { days: DeskAnswer['days'] }) {
  const sum = (key: Counted): number => days.reduce((total, one) => total + one[key], 0);
  const set = (key: Counted, background: string) => ({
    label: `${key} ${sum(key)}`,
    data: days.map((one) => one[key]),
    backgroundColor: background,
    borderRadius: 2,
    barPercentage: 0.9,
    categoryPercentage: 0.8,
  });
  return (
    <Box>
      <Bar
        aria-label={t`In the last three weeks ${sum('made')} copies were made, ${sum('sent')} sent, ${sum('bounced')} bounced`}
        role="img"
        data={{
          labels: days.map((one) => day.format(new Date(`${one.day}T12:00:00`))),
          datasets: series.filter(({ key, always }) => always || sum(key) > 0).map(({ key, ink }) => set(key, ink)),
        }}
        options={{
          maintainAspectRatio: false,
          animation: calm ? false : { duration: 150 },
          scales: {
            x: { grid: { display: false }, ticks: { maxRotation: 0, autoSkipPadding: 14 } },
            y: { beginAtZero: true, ticks: { precision: 0, maxTicksLimit: 5 }, grid: { color: color.hair }, border: { display: false } },
          },
          plugins: {
            legend: { position: 'bottom', labels: { boxWidth: 8, boxHeight: 8, padding: 14 } },
            tooltip: { callbacks: { title: ([item]) => (item ? weekday.format(new Date(`${days[item.dataIndex]!.day}T12:00:00`)) : '') } },
          },
        }}
      />
    </Box>
  );
}
