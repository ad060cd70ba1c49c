import { ToldForm } from './told-form.js';

/** A return in the manner of tax offices: numbered lines with leaders, amounts with cents, numbers in three groups, “check only one box”. */
export function allotmentReturn(): ToldForm {
  const form = new ToldForm('allotment return');
  form.text(40, 748, 'Form 12', 10, true).text(110, 748, 'Return of allotment income', 15, true).line(36, 738, 576, 738, 1.2);
  form.text(40, 727, 'For the year Jan. 1 - Dec. 31, 2026, or other year beginning', 7);
  form.ruled(236, 725, 300, 'For the year Jan. 1 - Dec. 31, 2026, or other year beginning');
  form.text(304, 727, ', 2026, ending', 7).ruled(354, 725, 420, 'ending').text(424, 727, ', 20', 7).ruled(438, 725, 460, null);
  // Names, with captions inside the boxes.
  form
    .box([36, 694, 250, 720])
    .text(39, 713, 'Your first name and middle initial', 6)
    .blank('text', [36, 694, 250, 711], 'Your first name and middle initial');
  form.box([250, 694, 430, 720]).text(253, 713, 'Last name', 6).blank('text', [250, 694, 430, 711], 'Last name');
  form.box([430, 694, 576, 720]).text(433, 713, 'Your registration number', 6);
  form.blank('text', [434, 696, 470, 710], 'Your registration number', { answer: 'registration', piece: 'characters 1-3', limit: 3 });
  form.blank('text', [476, 696, 500, 710], null, { answer: 'registration', piece: 'characters 4-5', limit: 2 });
  form.blank('text', [506, 696, 556, 710], null, { answer: 'registration', piece: 'characters 6-9', limit: 4 });
  form.text(471.5, 700, '-', 8).text(501.5, 700, '-', 8);
  form
    .box([36, 668, 430, 694])
    .text(39, 687, 'Home address (number and street)', 6)
    .blank('text', [36, 668, 430, 685], 'Home address (number and street)');
  form.box([430, 668, 576, 694]).text(433, 687, 'Apt. no.', 6).blank('text', [430, 668, 576, 685], 'Apt. no');
  // One of several ticks.
  form.text(40, 648, 'Filing status', 9, true).text(40, 636, 'Check only one box.', 7);
  for (const [at, words] of ['Single', 'Married filing jointly', 'Head of household'].entries()) {
    form.text(128, 649 - at * 14, String(at + 1), 8, true);
    form.tick(142, 648 - at * 14, words, { group: 'Filing status', answer: 'status' });
  }
  form.line(36, 612, 576, 612, 1);
  // Numbered lines: the amount in whole units and cents.
  form.text(40, 600, 'Income', 10, true);
  const lines: [string, string][] = [
    ['7', 'Wages, salaries, tips, etc. Attach slip W'],
    ['8a', 'Taxable interest'],
    ['9', 'Rent received for plots'],
    ['10', 'Add lines 7 through 9. This is your total income'],
  ];
  for (const [at, [number, words]] of lines.entries()) {
    const y = 584 - at * 16;
    form
      .text(100, y + 3, number, 8, true)
      .text(122, y + 3, words)
      .dots(132 + words.length * 4.1, y + 3, 448);
    form.box([452, y, 472, y + 16]).text(457, y + 4, number, 7, true);
    form.box([472, y, 548, y + 16]).box([548, y, 576, y + 16]);
    form.blank('text', [473, y + 1, 547, y + 15], words, { answer: `line ${number}`, piece: 'whole units' });
    form.blank('text', [549, y + 1, 575, y + 15], null, { answer: `line ${number}`, piece: 'cents', limit: 2 });
  }
  // A table of people.
  form.text(40, 512, 'Dependents', 10, true);
  const columns: [string, number, number][] = [['Full name', 100, 270], ['Registration number', 270, 400], ['Relationship to you', 400, 510]]; // prettier-ignore
  for (const [words, left, right] of columns) form.box([left, 494, right, 508]).text(left + 4, 498, words, 7);
  form.box([510, 494, 576, 508]).text(514, 498, 'Under 18', 7);
  for (let row = 0; row < 3; row++) {
    const y = 478 - row * 16;
    for (const [words, left, right] of columns) form.boxed([left, y, right, y + 16], words);
    form
      .box([510, y, 576, y + 16])
      .box([538, y + 4, 546, y + 12])
      .blank('checkbox', [538, y + 4, 546, y + 12], 'Under 18');
  }
  // Sign here.
  form
    .text(40, 400, 'Sign here', 11, true)
    .ruled(120, 396, 330, 'Your signature', { kind: 'signature' })
    .text(120, 387, 'Your signature', 6.5);
  form.ruled(350, 396, 430, 'Date', { kind: 'date' }).text(350, 387, 'Date', 6.5);
  form.ruled(450, 396, 576, 'Your occupation').text(450, 387, 'Your occupation', 6.5);
  form.text(120, 364, 'Daytime phone number', 8).text(212, 364, '(', 9).text(246, 364, ')', 9);
  form
    .line(216, 362, 244, 362)
    .blank('text', [216, 362, 244, 376], 'Daytime phone number', { answer: 'phone', piece: 'area code', limit: 3 });
  form.line(252, 362, 340, 362).blank('text', [252, 362, 340, 376], null, { answer: 'phone', piece: 'number' });
  form
    .line(36, 345, 576, 345, 1.2)
    .text(40, 335, 'For notices about privacy see the instructions on the back of this form.', 7)
    .text(520, 335, 'Form 12 (2026)', 7);
  return form;
}

/** An enrolment: captions above, two persons with the same questions, dates in boxes, Yes and No, lines to explain, signatures with captions below. */
export function enrolment(): ToldForm {
  const form = new ToldForm('enrolment', [612, 792], (index, page) => `Text${page * 100 + index}`);
  form.text(190, 750, 'LARKMERE VILLAGE SCHOOL', 14, true).text(250, 734, 'Enrolment form', 11);
  form.bar([36, 704, 576, 720], 0.2).text(42, 709, 'Pupil', 10, true);
  form
    .text(40, 692, 'First name', 7)
    .boxed([40, 672, 210, 689], 'First name')
    .text(220, 692, 'Middle name', 7)
    .boxed([220, 672, 380, 689], 'Middle name');
  form.text(390, 692, 'Surname', 7).boxed([390, 672, 572, 689], 'Surname');
  form.text(40, 656, 'Date of birth (MM/DD/YYYY)', 7);
  form.boxed([40, 636, 66, 653], 'Date of birth (MM/DD/YYYY)', { answer: 'birth', piece: 'month', limit: 2 }).text(69, 641, '/', 10);
  form.boxed([76, 636, 102, 653], null, { answer: 'birth', piece: 'day', limit: 2 }).text(105, 641, '/', 10);
  form.boxed([112, 636, 156, 653], null, { answer: 'birth', piece: 'year', limit: 4 });
  form.text(220, 656, 'Place of birth', 7).boxed([220, 636, 380, 653], 'Place of birth');
  form.text(390, 656, 'Year group', 7).boxed([390, 636, 450, 653], 'Year group');
  form
    .text(40, 614, 'Sex:')
    .tick(70, 613, 'Female', { group: 'Sex', answer: 'sex' })
    .tick(130, 613, 'Male', { group: 'Sex', answer: 'sex' });
  form
    .text(220, 614, 'Does the pupil have any allergies?')
    .tick(370, 613, 'Yes', { group: 'Does the pupil have any allergies?', answer: 'allergies' });
  form.tick(410, 613, 'No', { group: 'Does the pupil have any allergies?', answer: 'allergies' });
  form.text(40, 596, 'If yes, please explain:').ruled(130, 594, 572, 'If yes, please explain', { answer: 'explain', piece: 'line 1' });
  // Two persons.
  for (const [at, who] of ['Parent or guardian 1', 'Parent or guardian 2'].entries()) {
    const y = 560 - at * 110;
    form.bar([36, y, 576, y + 16], 0.2).text(42, y + 5, who, 10, true);
    form
      .text(40, y - 14, 'Name:')
      .ruled(80, y - 16, 320, 'Name')
      .text(330, y - 14, 'Relationship:')
      .ruled(386, y - 16, 572, 'Relationship');
    form
      .text(40, y - 34, 'Street:')
      .ruled(80, y - 36, 320, 'Street')
      .text(330, y - 34, 'House number:')
      .ruled(392, y - 36, 450, 'House number');
    form
      .text(40, y - 54, 'Town:')
      .ruled(80, y - 56, 240, 'Town')
      .text(250, y - 54, 'Postal code:')
      .ruled(302, y - 56, 380, 'Postal code');
    form
      .text(40, y - 74, 'E-mail:')
      .ruled(80, y - 76, 320, 'E-mail')
      .text(330, y - 74, 'Telephone:')
      .ruled(386, y - 76, 572, 'Telephone');
  }
  form.text(40, 330, 'Which of these apply? Check all that apply.');
  for (const [at, words] of ['Travels by bus', 'Eats at school', 'Goes to the after-school club'].entries())
    form.tick(52 + at * 150, 312, words, { group: 'Which of these apply? Check all that apply', answer: 'apply' });
  form.text(40, 290, 'I declare that what is said above is true, and that I shall tell the school when it changes.', 8);
  form.ruled(40, 250, 300, 'Signature of parent or guardian', { kind: 'signature' }).text(40, 241, 'Signature of parent or guardian', 7);
  form.ruled(330, 250, 450, 'Date', { kind: 'date' }).text(330, 241, 'Date', 7);
  form.text(40, 200, 'For office use only', 8, true);
  form
    .text(40, 184, 'Received by')
    .boxed([100, 178, 260, 194], 'Received by')
    .text(280, 184, 'Remarks')
    .boxed([330, 120, 572, 194], 'Remarks', { kind: 'multiline', multiline: true });
  form.text(270, 40, 'Page 1 of 1', 7);
  return form;
}

/** An application in German: combs, ja and nein, dates with full stops, street and house number as answers of their own. */
export function application(): ToldForm {
  const form = new ToldForm('application', [595.28, 841.89], (index) => `Feld ${index}`);
  form.text(60, 790, 'Antrag auf Mitgliedschaft', 16, true).text(60, 774, 'Bitte in Druckbuchstaben ausfüllen.', 8);
  form
    .text(60, 748, 'Familienname', 8)
    .boxed([150, 742, 350, 758], 'Familienname')
    .text(370, 748, 'Vorname', 8)
    .boxed([415, 742, 535, 758], 'Vorname');
  form
    .text(60, 724, 'Straße', 8)
    .boxed([150, 718, 350, 734], 'Straße')
    .text(370, 724, 'Hausnummer', 8)
    .boxed([430, 718, 480, 734], 'Hausnummer');
  form.text(60, 700, 'Postleitzahl', 8).comb(150, 694, 5, 15, 'Postleitzahl').text(250, 700, 'Ort', 8).boxed([270, 694, 535, 710], 'Ort');
  form
    .text(60, 676, 'Geburtsdatum', 8)
    .boxed([150, 670, 176, 686], 'Geburtsdatum', { answer: 'birth', piece: 'day', limit: 2 })
    .text(178, 674, '.', 10);
  form.boxed([184, 670, 210, 686], null, { answer: 'birth', piece: 'month', limit: 2 }).text(212, 674, '.', 10);
  form.boxed([218, 670, 262, 686], null, { answer: 'birth', piece: 'year', limit: 4 });
  form
    .text(60, 652, 'IBAN', 8)
    .comb(150, 646, 22, 15, 'IBAN')
    .text(60, 628, 'Kreditinstitut', 8)
    .boxed([150, 622, 350, 638], 'Kreditinstitut');
  form.text(60, 604, 'Sind Sie bereits Mitglied?', 8).tick(180, 603, 'ja', { group: 'Sind Sie bereits Mitglied?', answer: 'member' });
  form.tick(220, 603, 'nein', { group: 'Sind Sie bereits Mitglied?', answer: 'member' });
  form.text(60, 580, 'Zahlungsweise (nur eine ankreuzen):', 8);
  for (const [at, words] of ['monatlich', 'vierteljährlich', 'jährlich'].entries())
    form.tick(210 + at * 90, 579, words, { group: 'Zahlungsweise (nur eine ankreuzen)', answer: 'rhythm' });
  form.text(60, 552, 'Bemerkungen', 8).boxed([150, 490, 535, 560], 'Bemerkungen', { kind: 'multiline', multiline: true });
  form.text(60, 440, 'Ort, Datum ____________________________', 9).blank('date', [110, 438, 250, 452], 'Ort, Datum');
  form.text(300, 440, 'Unterschrift ______________________________', 9).blank('signature', [352, 438, 502, 452], 'Unterschrift');
  return form;
}

/** A claim with a table to be filled, and much that only looks like a blank: a table that is full, a chart, underlined headings, frames. */
export function expenseClaim(): ToldForm {
  const form = new ToldForm('expense claim', [595.28, 841.89], (index) => `claim.${index}`);
  form.text(60, 790, 'Expense claim', 16, true).line(60, 786, 164, 786, 1).line(60, 770, 535, 770, 0.4);
  form.text(60, 752, 'Claimant').ruled(110, 750, 300, 'Claimant').text(320, 752, 'Month').ruled(350, 750, 420, 'Month');
  const columns: [string, number, number][] = [['Travel', 160, 250], ['Meals', 250, 340], ['Other', 340, 430]]; // prettier-ignore
  form.box([60, 716, 160, 732]).text(64, 721, 'Week', 8, true);
  for (const [words, left, right] of columns) form.box([left, 716, right, 732]).text(left + 4, 721, words, 8, true);
  for (let row = 0; row < 4; row++) {
    const y = 700 - row * 16;
    form.box([60, y, 160, y + 16]).text(64, y + 5, `Week ${row + 1}`);
    for (const [words, left, right] of columns) form.boxed([left, y, right, y + 16], `Week ${row + 1}, ${words}`);
  }
  form.text(60, 630, 'Total claimed').boxed([340, 624, 430, 640], 'Total claimed').text(434, 630, 'EUR');
  // A table that is full already, with an empty corner.
  form.text(60, 600, 'Rates', 11, true).line(60, 597, 90, 597);
  const rates = [['', 'Inland', 'Abroad'], ['Per kilometre', '0.30', '0.30'], ['Per day', '28.00', '50.00'], ['Per night', '20.00', '40.00']]; // prettier-ignore
  for (const [row, cells] of rates.entries())
    for (const [column, words] of cells.entries()) {
      form.box([60 + column * 90, 574 - row * 15, 150 + column * 90, 589 - row * 15]);
      if (words) form.text(64 + column * 90, 579 - row * 15, words);
    }
  // A chart.
  form.text(60, 508, 'Claims by quarter', 11, true).line(80, 400, 80, 495).line(80, 400, 300, 400);
  for (const [at, height] of [40, 62, 25, 80].entries())
    form.box([100 + at * 45, 400, 124 + at * 45, 400 + height], 0.9).text(103 + at * 45, 390, `Q${at + 1}`);
  for (const at of [0, 1, 2, 3]) form.text(62, 398 + at * 25, String(at * 50), 7).line(80, 425 + at * 22, 300, 425 + at * 22, 0.2);
  // Ticks of all sorts.
  form.text(60, 360, 'Pay by');
  form
    .circle(104, 363, 5)
    .text(112, 360, 'bank transfer')
    .blank('checkbox', [99, 358, 109, 368], 'bank transfer', { group: 'Pay by', answer: 'pay' });
  form.circle(184, 363, 5).text(192, 360, 'cheque').blank('checkbox', [179, 358, 189, 368], 'cheque', { group: 'Pay by', answer: 'pay' });
  form.text(60, 340, '[ ] Receipts are attached').blank('checkbox', [60, 338, 68, 348], 'Receipts are attached');
  form
    .text(60, 322, 'Reason ..........................................................................')
    .blank('text', [92, 321, 258, 334], 'Reason');
  form.text(60, 300, 'Comments:');
  for (let at = 0; at < 4; at++) form.line(60, 282 - at * 18, 535, 282 - at * 18);
  form.blank('multiline', [60, 228, 535, 296], 'Comments', { multiline: true });
  form
    .text(60, 190, '1. Introduction .................................................... 3')
    .text(60, 176, '2. Rates ........................................................ 12');
  form.box([40, 30, 555, 815]);
  return form;
}

/** Two pages that ask the same of one person, and captions below their lines. */
export function twoPages(): ToldForm {
  const form = new ToldForm('two pages', [595.28, 841.89], (index, page) => `Page${page}.box${index}`);
  const head = (): void => {
    form.text(60, 790, 'Name of tenant').ruled(130, 788, 350, 'Name of tenant', { answer: 'tenant' });
    form.text(370, 790, 'Plot number').ruled(425, 788, 535, 'Plot number', { answer: 'plot' });
  };
  head();
  form.text(60, 750, 'Handing over a plot', 14, true);
  const captions: [string, number, number, number][] = [['surname', 60, 250, 710], ['first name', 270, 535, 710], ['street', 60, 350, 680], ['house number', 370, 535, 680], ['postal code', 60, 160, 650], ['town', 180, 535, 650]]; // prettier-ignore
  for (const [words, left, right, y] of captions) form.ruled(left, y, right, words).text(left, y - 8, words, 7);
  form
    .text(60, 610, 'Rent per year')
    .boxed([150, 604, 230, 620], 'Rent per year', { answer: 'rent', piece: 'whole units' })
    .text(233, 608, '.', 10);
  form.boxed([238, 604, 262, 620], null, { answer: 'rent', piece: 'cents', limit: 2 });
  form.text(60, 580, 'What is left on the plot').ruled(170, 578, 535, 'What is left on the plot', { answer: 'left', piece: 'line 1' });
  form.ruled(170, 560, 535, null, { answer: 'left', piece: 'line 2', isSameText: true });
  form.newPage();
  head();
  form.text(60, 740, 'Keys', 12, true).text(60, 720, 'Number of keys').boxed([150, 714, 190, 730], 'Number of keys');
  form.text(60, 690, 'Are all keys there?').tick(160, 689, 'Yes', { group: 'Are all keys there?', answer: 'keys' });
  form.tick(210, 689, 'No', { group: 'Are all keys there?', answer: 'keys' });
  form.ruled(60, 600, 280, 'Signature of the tenant', { kind: 'signature' }).text(60, 592, 'Signature of the tenant', 7);
  form.ruled(310, 600, 535, 'Place and date', { kind: 'date' }).text(310, 592, 'Place and date', 7);
  return form;
}

/** A health form: ticks as short lines before their words, text that goes on below its words, a dotted line, a table below boxes of its columns, units. */
export function healthForm(): ToldForm {
  const form = new ToldForm('health form', [612, 792], (index) => `h${index}`);
  form.text(60, 750, 'Health form', 14, true).text(60, 730, 'Read the notes overleaf before you begin.').line(60, 727, 550, 727);
  const names: [string, number, number][] = [['Last name', 60, 250], ['First name', 250, 440], ['Nationality', 440, 550]]; // prettier-ignore
  for (const [words, left, right] of names)
    form
      .box([left, 690, right, 716])
      .text(left + 3, 708, words, 6)
      .blank('text', [left, 690, right, 706], words);
  form.text(60, 668, 'Children', 9, true);
  for (const [index, [, left, right]] of names.entries())
    form.box([left, 648, right, 662]).text(left + 3, 652, ['Name', 'School', 'Age'][index]!, 8, true);
  for (let row = 0; row < 2; row++)
    for (const [index, [, left, right]] of names.entries())
      form.boxed([left, 632 - row * 16, right, 648 - row * 16], ['Name', 'School', 'Age'][index]!);
  form
    .text(60, 590, 'Does your child wear glasses?')
    .text(180, 590, '____')
    .text(199, 590, 'Yes')
    .text(222, 590, '____')
    .text(241, 590, 'No');
  form.blank('checkbox', [180, 588, 198, 597], 'Yes', { group: 'Does your child wear glasses?', answer: 'glasses' });
  form.blank('checkbox', [222, 588, 240, 597], 'No', { group: 'Does your child wear glasses?', answer: 'glasses' });
  form.text(60, 566, 'Please list allergies:').ruled(136, 564, 550, 'Please list allergies', { answer: 'allergies', piece: 'line 1' });
  form.ruled(60, 546, 550, 'Please list allergies', { answer: 'allergies', piece: 'line 2' });
  form
    .text(60, 520, 'Weight')
    .boxed([90, 514, 130, 530], 'Weight')
    .text(134, 520, 'kg')
    .text(170, 520, 'Height')
    .boxed([200, 514, 240, 530], 'Height')
    .text(244, 520, 'cm');
  form.text(60, 496, 'Doctor');
  for (let x = 92; x < 300; x += 3) form.bar([x, 494, x + 1, 495], 0);
  form.blank('text', [92, 494, 299, 510], 'Doctor').text(60, 470, 'For office use', 8).bar([130, 464, 250, 480], 0.7);
  return form;
}

export const gallery = (): ToldForm[] => [allotmentReturn(), enrolment(), application(), expenseClaim(), twoPages(), healthForm()];
