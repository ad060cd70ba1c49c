import { Link } from 'react-router';
import styled from 'styled-components';
import type { ButtonLook } from './button';
import { buttonStyle } from './button';

/** A link that looks like a button: to a screen, and to a file. */
export const LinkButton = styled(Link)<{ $look?: ButtonLook; $small?: boolean }>`
  ${buttonStyle}
`;
export const FileButton = styled.a<{ $look?: ButtonLook; $small?: boolean }>`
  ${buttonStyle}
`;
