import PDFDocument from 'pdfkit';

/** A form of two pages written by a library that is not ours. The name stands on both pages as fields of their own. */
export function membershipForm(): Promise<Uint8Array> {
  return new Promise((resolve) => {
    const pdf = new PDFDocument({ size: 'A4', info: { Title: 'Membership' } });
    const chunks: Buffer[] = [];
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    pdf.font('Helvetica');
    pdf.initForm();
    pdf.fontSize(18).text('Choir membership', 60, 60);
    pdf.fontSize(9).text('Name', 60, 110).text('Voice', 60, 160).text('Pays by debit', 100, 213).text('Member number', 320, 110);
    pdf.formText('member_name', 60, 122, 240, 20, { required: true } as object);
    pdf.formText('member_no', 320, 122, 120, 20);
    pdf.formCombo('voice', 60, 172, 160, 20, { select: ['Soprano', 'Alto', 'Tenor', 'Bass'] } as object);
    pdf.formCheckbox('pays_by_debit', 60, 208, 16, 16);
    pdf.addPage();
    pdf.fontSize(12).text('Receipt for', 60, 60);
    pdf.formText('receipt_name', 60, 80, 240, 20);
    pdf.end();
  });
}
