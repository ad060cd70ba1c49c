import type { ReactNode } from 'react';
import styled from 'styled-components';
import { color, narrow, radius } from '../theme';

/** The working part of a screen: fills the frame, its panes scroll. */
export const Screen = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
  ${narrow} {
    height: auto;
  }
`;
const HeadLine = styled.header`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 16px 10px;
  min-height: 56px;
  & > h1 {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  & > .fill {
    flex: 1;
  }
  ${narrow} {
    flex-wrap: wrap;
    & > h1 {
      white-space: normal;
      overflow-wrap: anywhere;
    }
  }
`;
export function Head({ title, note, children }: { title: ReactNode; note?: ReactNode; children?: ReactNode }) {
  return (
    <HeadLine>
      <h1>{title}</h1>
      {note && <Small>{note}</Small>}
      <div className="fill" />
      {children}
    </HeadLine>
  );
}
export const Small = styled.span`
  font-size: 12px;
  line-height: 16px;
  color: ${color.faded};
`;
export const Scroll = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  ${narrow} {
    max-height: 100dvh;
  }
  @media print {
    overflow: visible;
    max-height: none;
  }
`;
export const Pane = styled.section`
  min-height: 0;
  min-width: 0;
  display: flex;
  flex-direction: column;
  background: ${color.sheet};
  & + & {
    border-left: 1px solid ${color.line};
  }
`;
export const Bar = styled.div`
  min-height: 42px;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 12px;
  border-bottom: 1px solid ${color.hair};
  flex: none;
  & > .fill {
    flex: 1;
  }
  @media print {
    & button,
    & input,
    & > a {
      display: none;
    }
  }
  ${narrow} {
    flex-wrap: wrap;
  }
`;
export const Card = styled.section`
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: ${radius};
  overflow: hidden;
  display: flex;
  flex-direction: column;
  min-height: 0;
  & > h2 {
    padding: 12px 12px 8px;
  }
`;
export const Stack = styled.div<{ $gap?: number }>`
  display: flex;
  flex-direction: column;
  gap: ${({ $gap = 12 }) => $gap}px;
  min-width: 0;
`;
export const Row = styled.div<{ $gap?: number }>`
  display: flex;
  align-items: center;
  gap: ${({ $gap = 8 }) => $gap}px;
  min-width: 0;
  ${narrow} {
    flex-wrap: wrap;
  }
`;
/** Names on the left, what they stand for on the right. */
export const Facts = styled.dl<{ $names?: string }>`
  margin: 0;
  display: grid;
  grid-template-columns: ${({ $names = '84px' }) => $names} minmax(0, 1fr);
  gap: 3px 8px;
  font-size: 13px;
  & dt {
    color: ${color.faded};
  }
  & dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
`;
const EmptyBox = styled.div`
  margin: auto;
  padding: 40px 24px;
  max-width: 460px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  align-items: center;
  text-align: center;
  color: ${color.faded};
  & > h2 {
    color: ${color.ink};
  }
`;
/** What belongs here, and the first step. */
export function Empty({ title, children, action }: { title: string; children?: ReactNode; action?: ReactNode }) {
  return (
    <EmptyBox>
      <h2>{title}</h2>
      {children && <p>{children}</p>}
      {action}
    </EmptyBox>
  );
}
const Track = styled.div`
  height: 6px;
  border-radius: 3px;
  background: ${color.hair};
  overflow: hidden;
  display: flex;
`;
/** A part in words: how many, or which share of a whole that is not counted. */
const partWords = ({ name, share }: { name: string; share: number }): string =>
  `${name} ${Number.isInteger(share) ? share : `${Math.round(share * 100)} %`}`;

/** A bar of parts, each a share of `total`. Its words stand beside it, and in its name for those who do not see it. */
export function PartsBar({
  parts,
  total,
  label,
  tall,
}: {
  parts: { share: number; color: string; name: string }[];
  total: number;
  label: string;
  tall?: boolean;
}) {
  return (
    <Track role="img" aria-label={[label, ...parts.map(partWords)].join(', ')} style={tall ? { height: 10, borderRadius: 5 } : undefined}>
      {parts.map((part) => (
        <div
          key={part.name}
          title={partWords(part)}
          style={{ width: `${total > 0 ? (part.share / total) * 100 : 0}%`, background: part.color, transition: 'width 300ms' }}
        />
      ))}
    </Track>
  );
}
export const Waiting = styled.div`
  margin: auto;
  padding: 32px;
  color: ${color.faded};
`;
