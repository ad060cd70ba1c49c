/** Words that say yes, in forms and in sheets (common practice, no source). */
export const YES_WORDS = /^(?:yes|ja|oui|s[ií]|sim|true|y|on|x|1|tak|ano|так|نعم)$/i;
