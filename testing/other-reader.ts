/** What pdf.js, a reader that we did not write, finds in a file. */
export interface ReadPage {
  /** Pieces of text with the lower left corner of each, in points. */
  pieces: { text: string; x: number; y: number }[];
  text: string;
  /** Form fields that are left, in the order in which Tab goes through them, and what is said of each where it is pointed at. */
  fields: string[];
  tooltips: string[];
}

/** @param password that opens it; left out: none @throws PasswordException where it is locked by another one */
export async function readByOther(bytes: Uint8Array, password?: string): Promise<ReadPage[]> {
  const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const pdf = await pdfjs.getDocument({
    data: bytes.slice(),
    verbosity: 0,
    isEvalSupported: false,
    ...(password !== undefined && { password }),
  }).promise;
  const pages: ReadPage[] = [];
  for (let number = 1; number <= pdf.numPages; number++) {
    const page = await pdf.getPage(number);
    const content = await page.getTextContent();
    const pieces = content.items.flatMap((item) =>
      'str' in item && item.str.trim() ? [{ text: item.str, x: Number(item.transform[4]), y: Number(item.transform[5]) }] : [],
    );
    const annotations = (await page.getAnnotations()) as {
      fieldName?: string;
      subtype: string;
      alternativeText?: string;
    }[];
    const widgets = annotations.filter(({ subtype }) => subtype === 'Widget');
    pages.push({
      pieces,
      text: pieces.map(({ text }) => text).join(' '),
      fields: widgets.map(({ fieldName }) => fieldName ?? ''),
      tooltips: widgets.map(({ alternativeText }) => alternativeText ?? ''),
    });
  }
  await pdf.destroy();
  return pages;
}
