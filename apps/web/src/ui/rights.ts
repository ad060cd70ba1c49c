import { t } from '@mailbag/core/words';
import { createContext, useContext } from 'react';

/** Whether who is signed in may change things, or only look. */
const MayChange = createContext(true);
export const RightsProvider = MayChange.Provider;
export const useMayChange = (): boolean => useContext(MayChange);

/** Said where something cannot be changed by who looks. */
export const LOOKS_ONLY = t`Your account looks here and does not change anything. An administrator can give it more.`;
