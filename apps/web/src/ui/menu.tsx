import { Menu, MenuItem } from 'react-aria-components';
import styled from 'styled-components';
import { color } from '../theme';

/** What a menu button opens. */
export const MenuItems = styled(Menu)`
  padding: 4px;
  outline: none;
  min-width: 200px;
  max-width: 340px;
`;
export const MenuLine = styled(MenuItem)`
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 5px 8px;
  border-radius: 4px;
  color: inherit;
  text-decoration: none;
  outline: none;
  cursor: pointer;
  &[data-focused] {
    background: ${color.plumWash};
  }
  & small {
    display: block;
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
  }
`;
