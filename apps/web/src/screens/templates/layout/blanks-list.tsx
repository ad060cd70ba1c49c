import { t } from '@mailbag/core/words';
import { phrase } from '../../../ui/phrase';
import type { LayoutAidsAnswer } from '@mailbag/contract';
import { BoxSelect, Check } from 'lucide-react';
import { Button } from '../../../ui/button';
import { Row, Small } from '../../../ui/layout';
import { BlankRow, ListHeading } from './drawn-list';
import { toolFacts } from './tools';
import type { LayoutBoard } from './use-layout-board';

/** Blanks that were found and could be fields: taken one by one, or all. */
export function BlanksList({ board, aids, isLooking }: { board: LayoutBoard; aids: LayoutAidsAnswer | undefined; isLooking: boolean }) {
  const offered = board.blanks.flat();
  if (isLooking) return <ListHeading>{phrase`Blanks ${(<Small role="status">{t`being searched for …`}</Small>)}`}</ListHeading>;
  if (!aids) return null;
  if (!board.offersBlanks)
    return (
      <Row style={{ padding: '8px 12px' }}>
        <Button small onPress={() => board.offerBlanks(true)}>{t`Show blanks that were found`}</Button>
      </Row>
    );
  if (offered.length === 0)
    return (
      <p style={{ padding: '8px 12px', margin: 0 }}>
        <Small>
          {aids.blanks.length > 0
            ? t`All blanks that were found are fields.`
            : t`No blanks were found on these pages. Draw fields with the tools above.`}
        </Small>
      </p>
    );
  return (
    <>
      <ListHeading>{phrase`Blanks found ${(<Small>{offered.length}</Small>)}`}</ListHeading>
      <Row style={{ padding: '6px 12px' }}>
        <Button small changes onPress={() => board.takeBlanks(offered.map(({ index }) => index))}>
          <Check size={14} />
          {t`Use all ${offered.length}`}
        </Button>
        <Button
          small
          changes
          pressed={board.tool === 'take'}
          tip={t`Drag around blanks on the page: each becomes a field`}
          onPress={() => board.setTool(board.tool === 'take' ? 'select' : 'take')}
        >
          <BoxSelect size={14} />
          {t`By area`}
        </Button>
        <Button small onPress={() => board.offerBlanks(false)}>{t`None`}</Button>
      </Row>
      {offered.map(({ index, label }) => {
        const { icon: Icon, word } = toolFacts[aids.blanks[index]!.kind];
        return (
          <BlankRow key={index} onMouseEnter={() => board.pointBlank(index)} onMouseLeave={() => board.pointBlank(null)}>
            <Icon size={15} aria-label={word} />
            <span title={label}>{label}</span>
            <Button small changes aria-label={t`Use “${label}”`} onPress={() => board.takeBlanks([index])}>{t`Use`}</Button>
          </BlankRow>
        );
      })}
    </>
  );
}
