/** Where a line of text begins, in points from the lower left corner of the page, and its type size. */
export interface TypedLine {
  x: number;
  y: number;
  size: number;
  text: string;
}

/** The functions of PDFium that type into a form (fpdf_formfill.h), by their names in its WebAssembly build. */
interface FormFunctions {
  HEAPU8: Uint8Array;
  wasmExports: { malloc(size: number): number };
  _FPDF_LoadPage(document: number, page: number): number;
  _FORM_OnAfterLoadPage(page: number, form: number): void;
  _FORM_OnMouseMove(form: number, page: number, modifier: number, x: number, y: number): void;
  _FORM_OnLButtonDown(form: number, page: number, modifier: number, x: number, y: number): void;
  _FORM_OnLButtonUp(form: number, page: number, modifier: number, x: number, y: number): void;
  _FORM_SelectAllText(form: number, page: number): void;
  _FORM_ReplaceSelection(form: number, page: number, text: number): void;
  _FORM_ForceToKillFocus(form: number): void;
  _FPDFPage_GetAnnot(page: number, index: number): number;
  _FPDFAnnot_GetAP(annotation: number, mode: number, buffer: number, length: number): number;
}

/**
 * Types a text into the first field of a form as a person would in a viewer built on PDFium, and tells where PDFium puts each line.
 * @param rect of its box, points
 */
export async function typedByPdfium(pdf: Uint8Array, rect: readonly number[], text: string): Promise<TypedLine[]> {
  const { PDFiumLibrary } = await import('@hyzyla/pdfium');
  const library = await PDFiumLibrary.init();
  try {
    const m = (library as unknown as { module: FormFunctions }).module;
    const document = (await library.loadDocument(pdf)) as unknown as { documentIdx: number; initializeFormFields(): number };
    const form = document.initializeFormFields();
    const page = m._FPDF_LoadPage(document.documentIdx, 0);
    m._FORM_OnAfterLoadPage(page, form);
    const [x, y] = [(rect[0]! + rect[2]!) / 2, (rect[1]! + rect[3]!) / 2];
    m._FORM_OnMouseMove(form, page, 0, x, y);
    m._FORM_OnLButtonDown(form, page, 0, x, y);
    m._FORM_OnLButtonUp(form, page, 0, x, y);
    m._FORM_SelectAllText(form, page);
    const units = Buffer.from(`${text}\0`, 'utf16le');
    const at = m.wasmExports.malloc(units.length);
    m.HEAPU8.set(units, at);
    m._FORM_ReplaceSelection(form, page, at);
    m._FORM_ForceToKillFocus(form);
    const annotation = m._FPDFPage_GetAnnot(page, 0);
    const length = m._FPDFAnnot_GetAP(annotation, 0, 0, 0);
    const buffer = m.wasmExports.malloc(length);
    m._FPDFAnnot_GetAP(annotation, 0, buffer, length);
    return linesOf(Buffer.from(m.HEAPU8.slice(buffer, buffer + length - 2)).toString('utf16le'), rect);
  } finally {
    library.destroy();
  }
}

/** Lines of an appearance stream by its text operators (ISO 32000-2, 9.4). */
function linesOf(content: string, [left = 0, bottom = 0]: readonly number[]): TypedLine[] {
  const lines: TypedLine[] = [];
  let [x, y, size] = [left, bottom, 0];
  for (const found of content.matchAll(/\/\S{1,80} ([-\d.]{1,20}) Tf|([-\d.]{1,20}) ([-\d.]{1,20}) Td|\(((?:[^()\\]|\\.)*)\)\s*Tj/g)) {
    if (found[1] !== undefined) size = Number(found[1]);
    else if (found[2] !== undefined) [x, y] = [x + Number(found[2]), y + Number(found[3])];
    else lines.push({ x, y, size, text: found[4]!.replace(/\\(.)/g, '$1') });
  }
  return lines;
}
