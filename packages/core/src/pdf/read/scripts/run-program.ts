import type { Expression, Statement, Value } from './expression.js';

/** What a program asks of its form. */
export interface Surroundings {
  /** The value of a field: a number where its text is one, as the script API has it. */
  value(name: string): Value;
  fold(name: string, fields: readonly string[]): number;
}

const asNumber = (value: Value): number => (value === null || value === '' ? 0 : typeof value === 'string' ? Number(value) : Number(value));
const isTrue = (value: Value): boolean => (typeof value === 'number' ? value !== 0 && !Number.isNaN(value) : Boolean(value));

function two(operator: string, left: Value, right: Value): Value {
  switch (operator) {
    case '+':
      return typeof left === 'string' || typeof right === 'string'
        ? `${left ?? 'null'}${right ?? 'null'}`
        : asNumber(left) + asNumber(right);
    case '-':
      return asNumber(left) - asNumber(right);
    case '*':
      return asNumber(left) * asNumber(right);
    case '/':
      return asNumber(left) / asNumber(right);
    case '%':
      return asNumber(left) % asNumber(right);
    case '==':
    case '!=': {
      const isSame = typeof left === typeof right || left === null || right === null ? left === right : asNumber(left) === asNumber(right);
      return isSame === (operator === '==');
    }
    case '===':
      return left === right;
    case '!==':
      return left !== right;
    default: {
      const isText = typeof left === 'string' && typeof right === 'string';
      const [a, b] = isText ? [left, right] : [asNumber(left), asNumber(right)];
      return operator === '<' ? a < b : operator === '>' ? a > b : operator === '<=' ? a <= b : a >= b;
    }
  }
}

/** Runs a program over the values of a form. @returns what it gives to its field; null: nothing */
export function run(program: readonly Statement[], form: Surroundings): Value {
  const variables = new Map<string, Value>();
  let result: Value = null;
  const valueOf = (node: Expression): Value => {
    switch (node.kind) {
      case 'value':
        return node.value;
      case 'field':
        return form.value(node.name);
      case 'variable':
        return variables.get(node.name) ?? '';
      case 'event':
        return result ?? '';
      case 'not':
        return !isTrue(valueOf(node.of));
      case 'minus':
        return -asNumber(valueOf(node.of));
      case 'number':
        return asNumber(valueOf(node.of));
      case 'parsed':
        return Number.parseFloat(String(valueOf(node.of) ?? ''));
      // AFMakeNumber of the published PDF script API gives nothing for what is no number, and nothing counts as 0.
      case 'made':
        return asNumber(valueOf(node.of)) || 0;
      case 'text':
        return String(valueOf(node.of) ?? '');
      case 'math': {
        const values = node.of.map((one) => asNumber(valueOf(one)));
        return Math[node.name as 'max'](...values);
      }
      case 'round':
        return asNumber(valueOf(node.of)).toFixed(Math.min(20, Math.max(0, Math.trunc(asNumber(valueOf(node.decimals))))));
      case 'fold':
        return form.fold(node.name, node.fields);
      case 'two': {
        if (node.operator === '&&' || node.operator === '||') {
          const left = valueOf(node.left);
          return isTrue(left) === (node.operator === '&&') ? valueOf(node.right) : left;
        }
        return two(node.operator, valueOf(node.left), valueOf(node.right));
      }
      case 'choice':
        return isTrue(valueOf(node.when)) ? valueOf(node.yes) : valueOf(node.no);
    }
  };
  const perform = (statements: readonly Statement[]): void => {
    for (const statement of statements) {
      if (statement.kind === 'if') perform(isTrue(valueOf(statement.when)) ? statement.yes : statement.no);
      else if (statement.kind === 'result') result = valueOf(statement.to);
      else variables.set(statement.name, valueOf(statement.to));
    }
  };
  perform(program);
  return result;
}
