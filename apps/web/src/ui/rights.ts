import { t } from '@mailbag/core/words';
import { createContext, useContext } from 'react';

/** Whether who is signed in may change things, or only look. */
const MayChange = createContext(true);
export const RightsProvider = MayChange.Provider;
export const useMayChange = (): boolean => useContext(MayChange);

/** Said where something cannot be changed by who looks. */
export const LOOKS_ONLY = t`Your account can look at this but not change it. An administrator can give you more rights.`;
