import { basename } from 'node:path';
import type { Field, FieldFlag, FieldWidget } from '@mailbag/core';
import { fewNames, fieldLabel, inspectTemplate, templateNoteSentence } from '@mailbag/core';
import { fileAndOptions, readFile } from '../arguments.js';
import type { Command } from '../command.js';
import { answer, note } from '../command.js';

/** Flags that tell more than the kind of the field does already. */
const told: FieldFlag[] = ['readOnly', 'required', 'noExport', 'multiline', 'password', 'fileSelect', 'doNotScroll', 'comb', 'richText'];
const toldOfChoices: FieldFlag[] = ['noToggleToOff', 'radiosInUnison', 'edit', 'sort', 'multiSelect'];

const widgetOf = ({ page, rect, rotation, annotFlags, onValue, hasOnValue, state }: FieldWidget) => ({
  page: page || null,
  rect,
  rotation,
  annotFlags,
  onStates: hasOnValue ? [onValue] : [],
  as: state,
});

/** A field as the command line tells it. */
const fieldLine = (field: Field) => ({
  name: field.name,
  type: field.kind,
  page: field.page || null,
  maxLen: field.maxLength,
  options: field.options,
  onStates: [...new Set(field.widgets.filter((widget) => widget.hasOnValue).map((widget) => widget.onValue))],
  flags: field.flags.filter((flag) => told.includes(flag) || toldOfChoices.includes(flag)),
  value: field.value,
  defaultValue: field.defaultValue,
  alternateName: field.tooltip,
  partialName: field.partialName,
  label: field.label,
  labelFrom: field.labelFrom ?? null,
  section: field.section ?? null,
  format: field.format,
  calculation: field.calculation,
  widgets: field.widgets.map(widgetOf),
});

export const inspect: Command = {
  usage: 'mailbag inspect FORM.pdf [--json]',
  help: 'Lists the fields of a form: name, kind, page, limits, options, on-values. With --json everything that is known of them.',
  async run(args) {
    const { file, options } = fileAndOptions(args, { json: { type: 'boolean' } });
    const { fields, notes } = await inspectTemplate(readFile(file), basename(file));
    for (const one of notes) note(`${templateNoteSentence(one)}${one.fields.length > 0 ? ` (${fewNames(one.fields)})` : ''}`);
    if (options.json) return answer(fields.map(fieldLine));
    for (const field of fields) {
      const more = [
        ...field.flags.filter((flag) => flag === 'required' || flag === 'readOnly' || flag === 'multiline' || flag === 'comb'),
        ...(field.maxLength === null ? [] : [`at most ${field.maxLength}`]),
        ...(field.options.length > 0 ? [field.options.map((option) => option.label).join(' | ')] : field.onValues),
      ];
      process.stdout.write(
        `${field.page}\t${field.kind}\t${field.name}\t${fieldLabel(field)}${more.length > 0 ? `\t${more.join(', ')}` : ''}\n`,
      );
    }
  },
};
