/** How the copies of a packet go along with a message. */
export const attachWays = [
  { id: 'files', text: 'single files', detail: 'one for each template' },
  { id: 'combined', text: 'one combined PDF', detail: 'flattened copies without passwords only' },
  { id: 'zip', text: 'one zip', detail: 'the single files, packed' },
];
