/** Messages that the sources say, with the file that says each first. */
export function messages(): Map<string, string>;
