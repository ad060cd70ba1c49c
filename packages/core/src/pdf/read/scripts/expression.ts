import { unescaped } from './call.js';

/** A value of the small language that calculations are written in, as JavaScript has them. */
export type Value = string | number | boolean | null;

/** Expressions and statements that calculations of forms consist of; nothing of it can do anything but work out a value. */
export type Expression =
  | { kind: 'value'; value: Value }
  | { kind: 'field'; name: string }
  | { kind: 'variable'; name: string }
  | { kind: 'event' }
  | { kind: 'not' | 'minus' | 'number' | 'parsed' | 'made' | 'text'; of: Expression }
  | { kind: 'math'; name: string; of: Expression[] }
  | { kind: 'round'; of: Expression; decimals: Expression }
  | { kind: 'fold'; name: string; fields: string[] }
  | { kind: 'two'; operator: string; left: Expression; right: Expression }
  | { kind: 'choice'; when: Expression; yes: Expression; no: Expression };
export type Statement =
  | { kind: 'set'; name: string; to: Expression }
  | { kind: 'result'; to: Expression }
  | { kind: 'if'; when: Expression; yes: Statement[]; no: Statement[] };

/** Longest script that is read, characters, and deepest nesting. */
const [LONGEST, DEEPEST] = [8_000, 40];

class NotKnown extends Error {}

type Token = { kind: 'name' | 'number' | 'text' | 'mark'; text: string };
const TOKEN =
  /\s*(?:(\/\/[^\r\n]*)|(\/\*[\s\S]*?\*\/)|([A-Za-z_$][\w$]*)|(\d+(?:\.\d+)?|\.\d+)|"((?:[^"\\\r\n]|\\.)*)"|'((?:[^'\\\r\n]|\\.)*)'|(===|!==|==|!=|<=|>=|&&|\|\||\+\+|--|[+*/%-]=|[-+*/%<>=!?:;,.(){}[\]]))/y;

function tokensOf(script: string): Token[] {
  const tokens: Token[] = [];
  for (let at = 0; ;) {
    if (/^\s*$/.test(script.slice(at))) return tokens;
    TOKEN.lastIndex = at;
    const found = TOKEN.exec(script);
    if (!found) throw new NotKnown();
    at = TOKEN.lastIndex;
    const [, line, block, name, number, double, single, mark] = found;
    if (line !== undefined || block !== undefined) continue;
    if (name !== undefined) tokens.push({ kind: 'name', text: name });
    else if (number !== undefined) tokens.push({ kind: 'number', text: number });
    else if (mark !== undefined) tokens.push({ kind: 'mark', text: mark });
    else tokens.push({ kind: 'text', text: unescaped(double ?? single ?? '') });
  }
}

/** Operators by how tightly they bind, the loosest first. */
const LEVELS = [['||'], ['&&'], ['==', '!=', '===', '!=='], ['<', '>', '<=', '>='], ['+', '-'], ['*', '/', '%']];
const MATH = new Set(['round', 'floor', 'ceil', 'abs', 'min', 'max', 'pow']);
const FOLDS = new Set(['SUM', 'PRD', 'AVG', 'MIN', 'MAX']);

class Parser {
  private at = 0;
  private depth = 0;
  constructor(private readonly tokens: readonly Token[]) {}

  program(): Statement[] {
    const found: Statement[] = [];
    while (this.at < this.tokens.length) found.push(...this.statement());
    return found;
  }
  private get next(): Token | undefined {
    return this.tokens[this.at];
  }
  private is(text: string): boolean {
    return this.next !== undefined && this.next.kind !== 'text' && this.next.text === text;
  }
  private take(text: string): boolean {
    if (!this.is(text)) return false;
    this.at++;
    return true;
  }
  private must(...texts: string[]): void {
    for (const text of texts) if (!this.take(text)) throw new NotKnown();
  }
  private ofKind(kind: Token['kind']): string {
    const token = this.next;
    if (token?.kind !== kind) throw new NotKnown();
    this.at++;
    return token.text;
  }
  private deeper<T>(work: () => T): T {
    if (++this.depth > DEEPEST) throw new NotKnown();
    const result = work();
    this.depth--;
    return result;
  }
  private statement(): Statement[] {
    if (this.take(';')) return [];
    if (this.take('{')) {
      const inside: Statement[] = [];
      while (!this.take('}')) inside.push(...this.deeper(() => this.statement()));
      return inside;
    }
    if (this.take('if')) return [this.condition()];
    const found = this.simple();
    // A line may end without a semicolon.
    this.take(';');
    return found;
  }
  private condition(): Statement {
    this.must('(');
    const when = this.expression();
    this.must(')');
    const yes = this.deeper(() => this.statement());
    const no = this.take('else') ? this.deeper(() => this.statement()) : [];
    return { kind: 'if', when, yes, no };
  }
  private simple(): Statement[] {
    if (this.take('var') || this.take('let') || this.take('const')) {
      const found: Statement[] = [];
      do {
        const name = this.ofKind('name');
        found.push({ kind: 'set', name, to: this.take('=') ? this.expression() : { kind: 'value', value: '' } });
      } while (this.take(','));
      return found;
    }
    if (this.is('AFSimple_Calculate')) return [{ kind: 'result', to: this.simpleCalculation() }];
    if (this.take('event')) {
      this.must('.', 'value');
      return [{ kind: 'result', to: this.assigned({ kind: 'event' }) }];
    }
    const name = this.ofKind('name');
    if (this.take('++')) return [{ kind: 'set', name, to: sum({ kind: 'variable', name }, 1) }];
    return [{ kind: 'set', name, to: this.assigned({ kind: 'variable', name }) }];
  }
  /** What follows the target of an assignment. */
  private assigned(target: Expression): Expression {
    for (const operator of ['+', '-', '*', '/'])
      if (this.take(`${operator}=`)) return { kind: 'two', operator, left: target, right: this.expression() };
    this.must('=');
    return this.expression();
  }
  private simpleCalculation(): Expression {
    this.must('AFSimple_Calculate', '(');
    const name = this.ofKind('text').toUpperCase();
    if (!FOLDS.has(name)) throw new NotKnown();
    this.must(',');
    const fields: string[] = [];
    if (this.next?.kind === 'text')
      fields.push(
        ...this.ofKind('text')
          .split(',')
          .map((one) => one.trim())
          .filter(Boolean),
      );
    else {
      const close = this.take('[') ? ']' : (this.must('new', 'Array', '('), ')');
      while (!this.take(close)) {
        fields.push(this.ofKind('text'));
        this.take(',');
      }
    }
    this.must(')');
    if (fields.length === 0) throw new NotKnown();
    return { kind: 'fold', name, fields };
  }
  expression(): Expression {
    return this.deeper(() => {
      const when = this.level(0);
      if (!this.take('?')) return when;
      const yes = this.expression();
      this.must(':');
      return { kind: 'choice', when, yes, no: this.expression() };
    });
  }
  private level(index: number): Expression {
    const operators = LEVELS[index];
    if (!operators) return this.unary();
    let left = this.level(index + 1);
    for (;;) {
      const operator = operators.find((one) => this.is(one));
      if (!operator) return left;
      this.at++;
      left = { kind: 'two', operator, left, right: this.level(index + 1) };
    }
  }
  private unary(): Expression {
    if (this.take('!')) return { kind: 'not', of: this.deeper(() => this.unary()) };
    if (this.take('-')) return { kind: 'minus', of: this.deeper(() => this.unary()) };
    if (this.take('+')) return { kind: 'number', of: this.deeper(() => this.unary()) };
    return this.after(this.primary());
  }
  /** What may follow a value: `.toFixed(2)`, `.toString()`. */
  private after(value: Expression): Expression {
    if (!this.take('.')) return value;
    if (this.take('toFixed')) {
      this.must('(');
      const decimals: Expression = this.is(')') ? { kind: 'value', value: 0 } : this.expression();
      this.must(')');
      return this.after({ kind: 'round', of: value, decimals });
    }
    this.must('toString', '(', ')');
    return this.after({ kind: 'text', of: value });
  }
  private primary(): Expression {
    const token = this.next;
    if (!token) throw new NotKnown();
    if (this.take('(')) {
      const inside = this.expression();
      this.must(')');
      return inside;
    }
    this.at++;
    if (token.kind === 'number') return { kind: 'value', value: Number(token.text) };
    if (token.kind === 'text') return { kind: 'value', value: token.text };
    if (token.kind === 'mark') throw new NotKnown();
    switch (token.text) {
      case 'true':
      case 'false':
        return { kind: 'value', value: token.text === 'true' };
      case 'null':
        return { kind: 'value', value: null };
      case 'this':
        this.must('.');
        return this.field((this.must('getField'), this.argument()));
      case 'getField':
        return this.field(this.argument());
      case 'event':
        this.must('.', 'value');
        return { kind: 'event' };
      case 'Number':
      case 'parseFloat':
      case 'parseInt':
      case 'AFMakeNumber':
        this.must('(');
        return this.converted(token.text);
      case 'Math': {
        this.must('.');
        const name = this.ofKind('name');
        if (!MATH.has(name)) throw new NotKnown();
        return { kind: 'math', name, of: this.argumentsOf() };
      }
      default:
        if (this.is('(') || this.is('[')) throw new NotKnown();
        return { kind: 'variable', name: token.text };
    }
  }
  private converted(name: string): Expression {
    const of = this.expression();
    if (this.take(',')) this.expression();
    this.must(')');
    if (name === 'Number') return { kind: 'number', of };
    if (name === 'AFMakeNumber') return { kind: 'made', of };
    return name === 'parseInt' ? { kind: 'math', name: 'trunc', of: [{ kind: 'parsed', of }] } : { kind: 'parsed', of };
  }
  private argument(): string {
    this.must('(');
    const name = this.ofKind('text');
    this.must(')');
    return name;
  }
  private argumentsOf(): Expression[] {
    this.must('(');
    const found: Expression[] = [];
    while (!this.take(')')) {
      found.push(this.expression());
      this.take(',');
    }
    return found;
  }
  private field(name: string): Expression {
    this.must('.');
    if (!this.take('value')) this.must('valueAsString');
    return { kind: 'field', name };
  }
}

const sum = (left: Expression, by: number): Expression => ({ kind: 'two', operator: '+', left, right: { kind: 'value', value: by } });

/** Between BVCALC and EVCALC a viewer keeps what the author typed: names of fields as they are, with a backslash before what is no letter or digit. */
const SIMPLIFIED = /\bBVCALC\b([\s\S]*?)\bEVCALC\b/;

function simplified(notation: string): Statement[] {
  const names: string[] = [];
  // Names become texts of a call, so that the same reader does for both notations.
  const script = notation.replace(/(?:[A-Za-z_\u00c0-\u{10ffff}]|\\.)(?:[\w\u00c0-\u{10ffff}.]|\\.)*/gu, (name) => {
    names.push(name.replace(/\\(.)/g, '$1'));
    return `getField(${JSON.stringify(names.at(-1))}).value`;
  });
  const parser = new Parser(tokensOf(`event.value = ${script}`));
  const program = parser.program();
  if (names.length === 0) throw new NotKnown();
  // Empty and non-numeric fields count as 0 there.
  return JSON.parse(JSON.stringify(program), (_, node: unknown) =>
    typeof node === 'object' && node !== null && (node as Expression).kind === 'field' ? { kind: 'number', of: node } : node,
  ) as Statement[];
}

/** Reads a script of a calculation; null when anything in it is beyond working out a value. */
export function readProgram(script: string): Statement[] | null {
  if (script.length > LONGEST) return null;
  try {
    const notation = SIMPLIFIED.exec(script);
    return notation ? simplified(notation[1]!) : new Parser(tokensOf(script)).program();
  } catch (error) {
    if (error instanceof NotKnown) return null;
    throw error;
  }
}

/** Names of all fields that a program reads; those of a fold stand for the fields below them too. */
export function fieldsOf(program: readonly Statement[]): string[] {
  const names = new Set<string>();
  JSON.stringify(program, (_, node: unknown) => {
    if (typeof node === 'object' && node !== null) {
      const { kind, name, fields } = node as { kind?: string; name?: string; fields?: string[] };
      if (kind === 'field') names.add(name!);
      if (kind === 'fold') for (const field of fields!) names.add(field);
    }
    return node;
  });
  return [...names];
}
