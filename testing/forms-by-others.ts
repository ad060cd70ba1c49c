import { PDFDocument as Library } from '@cantoo/pdf-lib';
import PDFKit from 'pdfkit';

/** Forms written by libraries that are not ours. Each has text, several lines, a comb or limit, a tick box and a choice. */
export const formsByOthers: Record<string, () => Promise<Uint8Array>> = {
  pdfkit: () =>
    new Promise((resolve) => {
      const pdf = new PDFKit({ size: 'A4' });
      const chunks: Buffer[] = [];
      pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
      pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
      pdf.font('Helvetica');
      pdf.initForm();
      pdf.fontSize(18).text('Choir membership', 60, 60);
      pdf.fontSize(9).text('Name', 60, 110);
      pdf.formText('name', 60, 122, 240, 20, { required: true } as object);
      pdf.formText('letter', 60, 160, 240, 60, { multiline: true } as object);
      pdf.formCombo('voice', 60, 240, 160, 20, { select: ['Soprano', 'Alto', 'Tenor'] } as object);
      pdf.formCheckbox('debit', 60, 280, 16, 16);
      pdf.addPage();
      pdf.formText('place', 60, 80, 240, 20);
      pdf.end();
    }),
  jspdf: async () => {
    const { jsPDF } = await import('jspdf');
    const pdf = new jsPDF({ unit: 'pt', format: 'a4' });
    pdf.text('A form', 60, 60);
    const acro = (jsPDF as unknown as { AcroForm: Record<string, new () => Record<string, unknown>> }).AcroForm;
    const add = (kind: string, more: Record<string, unknown>): void => {
      const field = new acro[kind]!();
      Object.assign(field, more);
      pdf.addField(field as never);
    };
    add('TextField', { fieldName: 'name', x: 60, y: 90, width: 200, height: 20 });
    add('TextField', { fieldName: 'letter', x: 60, y: 120, width: 200, height: 60, multiline: true });
    add('TextField', { fieldName: 'code', x: 60, y: 200, width: 200, height: 20, maxLength: 10, comb: true });
    add('ComboBox', { fieldName: 'voice', x: 60, y: 240, width: 120, height: 20, topIndex: 0 });
    add('CheckBox', { fieldName: 'debit', x: 60, y: 280, width: 16, height: 16, appearanceState: 'Off' });
    return new Uint8Array(pdf.output('arraybuffer'));
  },
  'pdf-lib': async () => {
    const doc = await Library.create();
    const page = doc.addPage([400, 400]);
    page.drawText('Name', { x: 20, y: 362, size: 9 });
    const form = doc.getForm();
    form.createTextField('person.name').addToPage(page, { x: 60, y: 355, width: 200, height: 20 });
    const letter = form.createTextField('person.letter');
    letter.enableMultiline();
    letter.addToPage(page, { x: 60, y: 270, width: 200, height: 60 });
    const code = form.createTextField('code');
    code.setMaxLength(6);
    code.enableCombing();
    code.addToPage(page, { x: 60, y: 230, width: 200, height: 20 });
    const voice = form.createDropdown('voice');
    voice.setOptions(['Soprano', 'Alto', 'Tenor']);
    voice.addToPage(page, { x: 60, y: 190, width: 120, height: 20 });
    const days = form.createOptionList('days');
    days.setOptions(['Monday', 'Tuesday', 'Wednesday']);
    days.enableMultiselect();
    days.addToPage(page, { x: 220, y: 150, width: 120, height: 60 });
    form.createCheckBox('debit').addToPage(page, { x: 60, y: 150, width: 16, height: 16 });
    const pay = form.createRadioGroup('pay');
    pay.addOptionToPage('yearly', page, { x: 60, y: 110, width: 16, height: 16 });
    pay.addOptionToPage('monthly', page, { x: 100, y: 110, width: 16, height: 16 });
    return doc.save({ useObjectStreams: true });
  },
};
