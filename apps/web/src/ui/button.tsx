import type { ReactNode } from 'react';
import { Button as AriaButton, Tooltip, TooltipTrigger } from 'react-aria-components';
import type { ButtonProps as AriaProps } from 'react-aria-components';
import styled, { css } from 'styled-components';
import { color, motion, radius } from '../theme';
import { LOOKS_ONLY, useMayChange } from './rights';

export type ButtonLook = 'plain' | 'go' | 'bare' | 'danger';

export const buttonStyle = css<{ $look?: ButtonLook; $small?: boolean }>`
  height: ${({ $small }) => ($small ? '26px' : '32px')};
  padding: 0 ${({ $small }) => ($small ? '8px' : '12px')};
  font-size: ${({ $small }) => ($small ? '12px' : '14px')};
  border-radius: ${radius};
  border: 1px solid ${({ $look }) => ($look === 'go' ? color.plum : $look === 'bare' ? 'transparent' : color.line)};
  background: ${({ $look }) => ($look === 'go' ? color.plum : $look === 'bare' ? 'transparent' : color.sheet)};
  color: ${({ $look }) => ($look === 'go' ? color.sheet : $look === 'danger' ? color.brick : color.ink)};
  font-weight: ${({ $look }) => ($look === 'go' ? 600 : 400)};
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  white-space: nowrap;
  cursor: pointer;
  text-decoration: none;
  transition: background ${motion};
  &:hover:not([data-disabled]) {
    background: ${({ $look }) => ($look === 'go' ? color.plumDark : color.plumWash)};
  }
  &[data-disabled] {
    cursor: default;
    color: ${({ $look }) => ($look === 'go' ? color.sheet : color.faded)};
    background: ${({ $look }) => ($look === 'go' ? color.slate : $look === 'bare' ? 'transparent' : color.paper)};
    border-color: ${({ $look }) => ($look === 'go' ? color.slate : $look === 'bare' ? 'transparent' : color.hair)};
  }
  &[aria-pressed='true'] {
    background: ${color.plumWash};
    border-color: ${color.plum};
    color: ${color.plum};
  }
`;

const Styled = styled(AriaButton)<{ $look?: ButtonLook; $small?: boolean }>`
  ${buttonStyle}
`;

const Bubble = styled(Tooltip)`
  background: ${color.ink};
  color: ${color.sheet};
  font-size: 12px;
  line-height: 16px;
  padding: 4px 8px;
  border-radius: 4px;
  max-width: 280px;
`;

export interface ButtonProps extends AriaProps {
  look?: ButtonLook;
  small?: boolean;
  pressed?: boolean;
  /** It changes something: who may only look finds it switched off. */
  changes?: boolean;
  /** Shown when pointed at; also the name of a button that has only an icon. */
  tip?: string;
  children: ReactNode;
}

export function Button({ look, small, pressed, tip, changes, children, ...rest }: ButtonProps) {
  const isOff = !useMayChange() && changes === true;
  const button = (
    <Styled
      $look={look}
      $small={small}
      {...(pressed === undefined ? {} : { 'aria-pressed': pressed })}
      {...rest}
      {...(isOff && { isDisabled: true })}
    >
      {children}
    </Styled>
  );
  // A button that is switched off is not pointed at by itself: what is around it tells why.
  if (isOff) return <span title={LOOKS_ONLY}>{button}</span>;
  if (!tip) return button;
  return (
    <TooltipTrigger delay={500}>
      {button}
      <Bubble offset={6}>{tip}</Bubble>
    </TooltipTrigger>
  );
}

/** A button that is only an icon; `label` is its name and its tooltip. */
export function IconButton({ label, children, ...rest }: Omit<ButtonProps, 'tip'> & { label: string }) {
  return (
    <Button look="bare" aria-label={label.replace(/ \(.*\)$/, '')} tip={label} {...rest} style={{ padding: '0 7px' }}>
      {children}
    </Button>
  );
}
