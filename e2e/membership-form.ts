import PDFDocument from 'pdfkit';

/**
 * A form of two pages written by a library that is not ours. The name stands on both pages as fields of their own.
 * @param edition of a later one, a prefix that all its fields have; it asks for a birthday and no more for the voice
 * @param title of its file, by which two are told apart
 */
export function membershipForm(edition = '', title = 'Membership'): Promise<Uint8Array> {
  return new Promise((resolve) => {
    const pdf = new PDFDocument({ size: 'A4', info: { Title: title } });
    const chunks: Buffer[] = [];
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    pdf.font('Helvetica');
    pdf.initForm();
    pdf.fontSize(18).text('Choir membership', 60, 60);
    pdf
      .fontSize(9)
      .text('Name', 60, 110)
      .text(edition ? 'Date of birth' : 'Voice', 60, 160)
      .text('Pays by debit', 100, 213)
      .text('Member number', 320, 110);
    pdf.formText(`${edition}member_name`, 60, 122, 240, 20, { required: true } as object);
    pdf.formText(`${edition}member_no`, 320, 122, 120, 20);
    if (edition) pdf.formText(`${edition}born`, 60, 172, 160, 20);
    else pdf.formCombo('voice', 60, 172, 160, 20, { select: ['Soprano', 'Alto', 'Tenor', 'Bass'] } as object);
    pdf.formCheckbox(`${edition}pays_by_debit`, 60, 208, 16, 16);
    pdf.addPage();
    pdf.fontSize(12).text('Receipt for', 60, 60);
    pdf.formText(`${edition}receipt_name`, 60, 80, 240, 20);
    pdf.end();
  });
}

/** The same as it is printed to be filled by hand, without fields. @param title of its file, by which two are told apart */
export function paperForm(title = 'Membership on paper'): Promise<Uint8Array> {
  return new Promise((resolve) => {
    const pdf = new PDFDocument({ size: 'A4', info: { Title: title } });
    const chunks: Buffer[] = [];
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    pdf.font('Helvetica').fontSize(18).text('Choir membership', 60, 60).fontSize(9);
    pdf.text('Name', 60, 112).moveTo(100, 122).lineTo(300, 122).stroke();
    pdf.text('Telephone', 320, 112).moveTo(370, 122).lineTo(530, 122).stroke();
    pdf.rect(60, 150, 10, 10).stroke().text('I pay by debit', 76, 151);
    pdf.moveTo(60, 240).lineTo(280, 240).stroke().text('Signature', 60, 244);
    pdf.end();
  });
}
