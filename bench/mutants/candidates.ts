import ts from 'typescript';

/** One small wrong change of a source file: the expression between `start` and `end` is read as `changed` instead. */
export interface Mutant {
  file: string;
  line: number;
  start: number;
  end: number;
  /** What was done, in words. */
  what: string;
  original: string;
  changed: string;
}

const turned: Partial<Record<ts.SyntaxKind, readonly string[]>> = {
  [ts.SyntaxKind.LessThanToken]: ['<=', '>='],
  [ts.SyntaxKind.LessThanEqualsToken]: ['<', '>'],
  [ts.SyntaxKind.GreaterThanToken]: ['>=', '<='],
  [ts.SyntaxKind.GreaterThanEqualsToken]: ['>', '<'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: ['!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: ['==='],
  [ts.SyntaxKind.AmpersandAmpersandToken]: ['||'],
  [ts.SyntaxKind.BarBarToken]: ['&&'],
  [ts.SyntaxKind.MinusToken]: ['+'],
  [ts.SyntaxKind.AsteriskToken]: ['/'],
  [ts.SyntaxKind.SlashToken]: ['*'],
};

/** Every mutant of a source file. Types, imports, the words of errors and the keys of objects are left alone. */
export function candidatesOf(file: string, text: string): Mutant[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found: Mutant[] = [];
  const add = (node: ts.Expression, what: string, changed: string): void => {
    const start = node.getStart(source);
    found.push({
      file,
      line: source.getLineAndCharacterOfPosition(start).line + 1,
      start,
      end: node.end,
      what,
      original: text.slice(start, node.end),
      changed,
    });
  };
  const textOf = (node: ts.Node): string => node.getText(source);

  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isThrowStatement(node)) return;
    if (ts.isIfStatement(node)) {
      add(node.expression, 'never', 'false');
      add(node.expression, 'always', 'true');
    }
    if (ts.isConditionalExpression(node)) add(node, 'the other branch', textOf(node.whenFalse));
    if (ts.isExpressionStatement(node)) {
      const called = ts.isAwaitExpression(node.expression) ? node.expression.expression : node.expression;
      if (ts.isCallExpression(called) && called.expression.kind !== ts.SyntaxKind.SuperKeyword)
        add(node.expression, 'left out', 'undefined');
    }
    if (ts.isBinaryExpression(node))
      for (const operator of turned[node.operatorToken.kind] ?? [])
        add(node, operator, `(${textOf(node.left)}) ${operator} (${textOf(node.right)})`);
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, 'without not', textOf(node.operand));
    if (node.kind === ts.SyntaxKind.TrueKeyword) add(node as ts.Expression, 'false', 'false');
    if (node.kind === ts.SyntaxKind.FalseKeyword) add(node as ts.Expression, 'true', 'true');
    if (ts.isNumericLiteral(node) && !(ts.isPropertyAssignment(node.parent) && node.parent.name === node)) {
      const value = Number(node.text);
      const other = Number.isInteger(value) && value < 10 ? value + 1 : value * 1.5;
      add(node, `${other}`, `${other}`);
    }
    if (ts.isCallExpression(node) && /^Math\.(min|max)$/.test(textOf(node.expression)))
      add(
        node,
        'the other end',
        textOf(node).replace(/^Math\.(min|max)/, (_, end) => (end === 'min' ? 'Math.max' : 'Math.min')),
      );
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** The file with all its mutants woven in: each asks while it runs whether it is the one that is switched on. */
export function weave(text: string, mutants: readonly (Mutant & { id: number })[]): string {
  let woven = text;
  for (const { id, start, end, original, changed } of [...mutants].sort((a, b) => b.start - a.start))
    woven = `${woven.slice(0, start)}(globalThis.__mutants?.isOn(${id}) ? (${changed}) : (${original}))${woven.slice(end)}`;
  return woven;
}
