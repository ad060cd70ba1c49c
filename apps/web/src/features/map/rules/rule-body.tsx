import type { FillRule } from '@mailbag/core';
import type { ComponentType } from 'react';
import { AddressBody } from './address-body';
import { ArithmeticBody } from './arithmetic-body';
import { CasesBody } from './cases-body';
import { ColumnBody } from './column-body';
import { ComposeBody } from './compose-body';
import { CopyFactBody } from './copy-fact-body';
import { DateBody } from './date-body';
import { FirstBody } from './first-body';
import { FittedBody } from './fitted-body';
import { LiquidBody } from './liquid-body';
import { LookupBody } from './lookup-body';
import { NumberBody } from './number-body';
import { PieceBody } from './piece-body';
import { PortionBody } from './portion-body';
import type { BodyProps } from './rule-setting';
import { ShapeBody } from './shape-body';
import { ShortenBody } from './shorten-body';
import { TextBody } from './text-body';
import { TranslateBody } from './translate-body';

type Bodies = { [Kind in FillRule['kind']]: ComponentType<BodyProps<Extract<FillRule, { kind: Kind }>>> | null };

/** How the parts of each kind of rule are edited. */
const bodies: Bodies = {
  address: AddressBody,
  arithmetic: ArithmeticBody,
  blank: null,
  cases: CasesBody,
  column: ColumnBody,
  compose: ComposeBody,
  'copy-fact': CopyFactBody,
  date: DateBody,
  first: FirstBody,
  fitted: FittedBody,
  liquid: LiquidBody,
  lookup: LookupBody,
  number: NumberBody,
  piece: PieceBody,
  portion: PortionBody,
  shape: ShapeBody,
  shorten: ShortenBody,
  text: TextBody,
  translate: TranslateBody,
};

/** The parts of a rule, edited in place. */
export default function RuleBody(props: BodyProps<FillRule>) {
  const Body = bodies[props.rule.kind] as ComponentType<BodyProps<FillRule>> | null;
  return Body && <Body {...props} />;
}
