import styled from 'styled-components';
import { color, font } from '../../theme';

export const Ground = styled.div`
  min-height: 100dvh;
  display: grid;
  place-items: center;
  background: ${color.kraft};
  padding: 24px;
`;
export const Card = styled.form`
  width: 380px;
  max-width: 100%;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 8px;
  padding: 28px;
  display: flex;
  flex-direction: column;
  gap: 16px;
`;
export const Brand = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  font: 600 22px ${font.head};
`;
