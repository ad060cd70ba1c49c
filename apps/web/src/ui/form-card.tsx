import type { ReactNode } from 'react';
import { Padded } from './columns';

/** A card that is a form: Enter in a field does what its main button does. */
export function FormCard({ onSubmit, children }: { onSubmit: () => void; children: ReactNode }) {
  return (
    <Padded
      as="form"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault();
        onSubmit();
      }}
    >
      {children}
    </Padded>
  );
}
