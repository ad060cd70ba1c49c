import styled from 'styled-components';
import { color } from '../../theme';

/** What is said of a template below its line in the packet. */
export const PacketFrame = styled.div`
  padding: 6px 12px 10px 24px;
  border-bottom: 1px solid ${color.hair};
  display: flex;
  flex-direction: column;
  gap: 8px;
`;
