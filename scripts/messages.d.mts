/** Messages that the sources say, with the files that say them. */
export function messages(): Map<string, string[]>;
