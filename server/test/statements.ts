/** Reads the SQL statements of the server from its sources, with the row type that each result is read as. */
import path from 'node:path';
import ts from 'typescript';

const ROOT = path.join(__dirname, '..', '..');
/** Alternatives of one statement that are described; more would be a generator of SQL. */
const MOST = 200;

/** How a column's value arrives in JavaScript. `any`: the type does not say. */
export type Kind = 'string' | 'number' | 'boolean' | 'date' | 'structure' | 'any';

export interface Column {
  name: string;
  kinds: Kind[];
  optional: boolean;
}

/** A call whose SQL is put together at run time, with the row type of its result. */
export interface Unread {
  /** File, from the root of the repository. */
  file: string;
  row: Column[] | null;
}

/** A statement as it is sent. One with alternatives in it stands for several of these. */
export interface Statement {
  /** File and line, from the root of the repository. */
  at: string;
  sql: string;
  /** Null where the result is not read as rows of a declared type. */
  row: Column[] | null;
}

/** Values of the parameters of a function at one call. */
type Env = ReadonlyMap<ts.Symbol, ts.Expression>;

/** A text depends on a parameter: it must be read at every call of the function. */
class NeedsCallers extends Error {
  constructor(readonly owner: ts.SignatureDeclaration) {
    super('depends on a parameter');
  }
}

/** Returns the product of alternatives: every combination of one of each. */
function product(parts: string[][]): string[] {
  let all = [''];
  for (const part of parts) all = all.flatMap((a) => part.map((b) => a + b)).slice(0, MOST);
  return all;
}

class Sources {
  private readonly program: ts.Program;
  private readonly checker: ts.TypeChecker;
  private readonly calls: ts.CallExpression[] = [];

  constructor() {
    const config = ts.readConfigFile(path.join(ROOT, 'tsconfig.json'), ts.sys.readFile).config as object;
    const { options } = ts.parseJsonConfigFileContent({ ...config, include: ['server'] }, ts.sys, ROOT);
    const files = ts.sys.readDirectory(path.join(ROOT, 'server'), ['.ts'], ['**/node_modules', '**/test', '**/built']);
    this.program = ts.createProgram(
      files.filter((f) => !f.endsWith('.test.ts')),
      options,
    );
    this.checker = this.program.getTypeChecker();
    for (const file of this.program.getSourceFiles()) {
      if (file.isDeclarationFile || !file.fileName.startsWith(path.join(ROOT, 'server'))) continue;
      const visit = (node: ts.Node): void => {
        if (ts.isCallExpression(node)) this.calls.push(node);
        ts.forEachChild(node, visit);
      };
      visit(file);
    }
  }

  /** Returns all statements, and the places whose SQL cannot be read from the source. */
  statements(): { statements: Statement[]; unread: Unread[] } {
    const statements: Statement[] = [];
    const unread: Unread[] = [];
    for (const call of this.calls) {
      const [sql] = call.arguments;
      if (!sql || !ts.isPropertyAccessExpression(call.expression) || call.expression.name.text !== 'query') continue;
      const at = this.placeOf(call);
      const texts = this.textsAtAllCalls(sql);
      const row = call.typeArguments?.[0] ? this.columnsOf(call.typeArguments[0]) : null;
      if (!texts?.length) unread.push({ file: at.slice(0, at.lastIndexOf(':')), row });
      for (const text of new Set(texts)) statements.push({ at, sql: text, row });
    }
    return { statements, unread };
  }

  private placeOf(node: ts.Node): string {
    const file = node.getSourceFile();
    return `${path.relative(ROOT, file.fileName)}:${file.getLineAndCharacterOfPosition(node.getStart()).line + 1}`;
  }

  private columnsOf(node: ts.TypeNode): Column[] | null {
    const type = this.checker.getTypeFromTypeNode(node);
    if (type.flags & ts.TypeFlags.TypeParameter) return null;
    return this.checker.getPropertiesOfType(type).map((p) => {
      const of = this.checker.getTypeOfSymbol(p);
      const kinds = (of.isUnion() ? of.types : [of]).flatMap((t) => this.kindOf(t));
      return { name: p.name, kinds: [...new Set(kinds)], optional: (p.flags & ts.SymbolFlags.Optional) !== 0 };
    });
  }

  private kindOf(type: ts.Type): Kind[] {
    const { flags } = type;
    if (flags & (ts.TypeFlags.Null | ts.TypeFlags.Undefined)) return [];
    if (flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown)) return ['any'];
    if (flags & ts.TypeFlags.StringLike) return ['string'];
    if (flags & ts.TypeFlags.NumberLike) return ['number'];
    if (flags & ts.TypeFlags.BooleanLike) return ['boolean'];
    return [type.symbol?.name === 'Date' ? 'date' : 'structure'];
  }

  /** Texts of an expression; where it depends on parameters, those of all calls of its function. */
  private textsAtAllCalls(expression: ts.Expression): string[] | null {
    try {
      return this.texts(expression, new Map());
    } catch (error) {
      if (!(error instanceof NeedsCallers)) throw error;
      const all: string[] = [];
      for (const call of this.callsOf(error.owner)) {
        const texts = this.texts(expression, this.bind(error.owner, call));
        if (!texts) return null;
        all.push(...texts);
      }
      return all;
    }
  }

  private bind(owner: ts.SignatureDeclaration, call: ts.CallExpression): Env {
    const env = new Map<ts.Symbol, ts.Expression>();
    owner.parameters.forEach((p, i) => {
      const symbol = this.checker.getSymbolAtLocation(p.name);
      const value = call.arguments[i] ?? p.initializer;
      if (symbol && value) env.set(symbol, value);
    });
    return env;
  }

  private callsOf(owner: ts.SignatureDeclaration): ts.CallExpression[] {
    return this.calls.filter((c) => this.checker.getResolvedSignature(c)?.declaration === owner);
  }

  /** Returns all texts that an expression can be; null if they cannot be determined. */
  private texts(e: ts.Expression, env: Env): string[] | null {
    if (ts.isStringLiteralLike(e)) return [e.text];
    if (ts.isParenthesizedExpression(e) || ts.isAsExpression(e)) return this.texts(e.expression, env);
    if (ts.isTemplateExpression(e)) {
      const parts: string[][] = [[e.head.text]];
      for (const span of e.templateSpans) {
        const texts = this.texts(span.expression, env);
        if (!texts) return null;
        parts.push(texts, [span.literal.text]);
      }
      return product(parts);
    }
    if (ts.isConditionalExpression(e)) return this.union([e.whenTrue, e.whenFalse], env);
    if (ts.isBinaryExpression(e)) return this.binary(e, env);
    if (ts.isIdentifier(e)) return this.named(e, env);
    if (ts.isCallExpression(e)) return this.called(e, env);
    if (ts.isPropertyAccessExpression(e) || ts.isElementAccessExpression(e)) return this.member(e, env);
    return this.literals(e);
  }

  private union(all: ts.Expression[], env: Env): string[] | null {
    const texts = all.map((e) => this.texts(e, env));
    return texts.every((t) => t !== null) ? texts.flat() : null;
  }

  private binary(e: ts.BinaryExpression, env: Env): string[] | null {
    const kind = e.operatorToken.kind;
    if (kind === ts.SyntaxKind.PlusToken) {
      const [a, b] = [this.texts(e.left, env), this.texts(e.right, env)];
      return a && b ? product([a, b]) : null;
    }
    const isEither = kind === ts.SyntaxKind.QuestionQuestionToken || kind === ts.SyntaxKind.BarBarToken;
    return isEither ? this.union([e.left, e.right], env) : null;
  }

  private named(e: ts.Identifier, env: Env): string[] | null {
    let symbol = this.checker.getSymbolAtLocation(e);
    if (symbol && symbol.flags & ts.SymbolFlags.Alias) symbol = this.checker.getAliasedSymbol(symbol);
    const declaration = symbol?.valueDeclaration;
    if (!symbol || !declaration) return null;
    const bound = env.get(symbol);
    if (bound) return this.textsAtAllCalls(bound);
    const literals = this.literals(e);
    if (literals) return literals;
    if (ts.isParameter(declaration)) throw new NeedsCallers(declaration.parent);
    if (ts.isVariableDeclaration(declaration) && declaration.initializer)
      return this.texts(declaration.initializer, env);
    return null;
  }

  /** Returns the text that a function of one expression returns, or that `join` makes of a list. */
  private called(e: ts.CallExpression, env: Env): string[] | null {
    if (ts.isPropertyAccessExpression(e.expression) && e.expression.name.text === 'join') {
      const [separator] = e.arguments;
      const list = this.listOf(e.expression.expression);
      const between = separator ? this.texts(separator, env) : [','];
      const parts = list?.map((x) => this.texts(x, env));
      if (!parts?.every((p) => p !== null) || !between) return null;
      return product(parts.flatMap((p, i) => (i ? [between, p] : [p])));
    }
    const of = this.checker.getResolvedSignature(e)?.declaration;
    const body = of && 'body' in of ? (of.body as ts.ConciseBody | undefined) : undefined;
    if (!of || ts.isJSDocSignature(of) || !body) return null;
    const inner = this.bind(of, e);
    if (!ts.isBlock(body)) return this.texts(body, inner);
    const [only] = body.statements;
    return only && ts.isReturnStatement(only) && only.expression ? this.texts(only.expression, inner) : null;
  }

  private listOf(e: ts.Expression): readonly ts.Expression[] | null {
    if (ts.isArrayLiteralExpression(e)) return e.elements;
    if (ts.isAsExpression(e)) return this.listOf(e.expression);
    if (!ts.isIdentifier(e)) return null;
    const declaration = this.checker.getSymbolAtLocation(e)?.valueDeclaration;
    const value = declaration && ts.isVariableDeclaration(declaration) ? declaration.initializer : undefined;
    return value ? this.listOf(value) : null;
  }

  /** Returns an entry of an object that is written out, or all of them where the key is not. */
  private member(e: ts.PropertyAccessExpression | ts.ElementAccessExpression, env: Env): string[] | null {
    const literals = this.literals(e);
    if (literals) return literals;
    let symbol = this.checker.getSymbolAtLocation(e.expression);
    if (symbol && symbol.flags & ts.SymbolFlags.Alias) symbol = this.checker.getAliasedSymbol(symbol);
    const of = symbol?.valueDeclaration;
    let value = of && ts.isVariableDeclaration(of) ? of.initializer : undefined;
    while (value && (ts.isAsExpression(value) || ts.isSatisfiesExpression(value))) value = value.expression;
    if (!value || !ts.isObjectLiteralExpression(value)) return null;
    const key = ts.isPropertyAccessExpression(e) ? e.name.text : null;
    const entries = value.properties.filter(ts.isPropertyAssignment);
    const wanted = entries.filter((p) => key === null || p.name.getText() === key);
    return wanted.length
      ? this.union(
          wanted.map((p) => p.initializer),
          env,
        )
      : null;
  }

  /** Texts that the type of an expression lists. */
  private literals(e: ts.Expression): string[] | null {
    const type = this.checker.getTypeAtLocation(e);
    const all = type.isUnion() ? type.types : [type];
    return all.every((t) => t.isStringLiteral() || t.isNumberLiteral()) ? all.map((t) => String(t.value)) : null;
  }
}

/** Returns all statements of the server, and the places whose SQL cannot be read from the source. */
export const statementsOfServer = () => new Sources().statements();
