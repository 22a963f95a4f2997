/** Finds words that a person would read and that stand in the code itself instead of in the catalogue. */
import ts from 'typescript';

/** Attributes of elements and components that are read out or shown. */
export const SAID_ATTRIBUTES = [
  'aria-label',
  'title',
  'placeholder',
  'alt',
  'label',
  'hint',
  'description',
  'button',
  'lead',
  'empty',
  'note',
];

/** Where a string is a name, a selector or an address, and nobody reads it. */
const UNREAD_CALLS =
  /(querySelector(All)?|closest|matches|addEventListener|getAttribute|setAttribute|getElementById|startsWith|endsWith|includes|createElement|matchMedia|import|split|join|replace(All)?|get|has|set|debug|info|warn|error|text|execute|sql|raw|default|references|timed|of|sign|all|listen)$/;
const UNREAD_KEYS = ['className', 'class', 'words', 'style', 'look', 'placement'];

/** Where something is put into a sentence. */
const GAP = '{}';

/**
 * Prose: two words and more that begin as a sentence does, one word that ends as a sentence does, words in a row that are no list of classes, or
 * words beside what is put into them.
 */
const isProse = (text: string): boolean =>
  /^\s*[“(]?\p{Lu}[\p{Ll}’]*[ ,:;]+“?(\p{L}{2,}|\{\})/u.test(text) ||
  /^\s*[“(]?\p{Lu}\p{Ll}+[.!?…]$/u.test(text) ||
  (!/[-[\]=<>_/]|^(note|button|sign) \w+$/.test(text) && /\p{Ll}{2,}[”,;:]? \p{Ll}{2,}|\{\}[”’]? \p{Ll}{2,}|\p{Ll}{2,} “?\{\}/u.test(text));

const wordsOf = (node: ts.Node): string | null => {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isTemplateExpression(node)) return node.head.text + node.templateSpans.map((span) => GAP + span.literal.text).join('');
  return null;
};

/**
 * The literal words of a TypeScript file, each as it stands there: texts of elements, attributes that are read out, sentences in strings.
 * What a comparison, a selector, an internal error or a tagged template holds is none.
 */
export function literalWords(code: string, name: string): string[] {
  const file = ts.createSourceFile(name, code, ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node) || ts.isCaseClause(node)) {
      if (ts.isCaseClause(node)) for (const statement of node.statements) visit(statement);
      return;
    }
    if (ts.isNewExpression(node) && /Error$|^Intl/.test(node.expression.getText(file))) return;
    if (ts.isTaggedTemplateExpression(node)) {
      if (ts.isTemplateExpression(node.template)) for (const span of node.template.templateSpans) visit(span.expression);
      return;
    }
    if (ts.isBinaryExpression(node) && /^[!=]==?$/.test(node.operatorToken.getText(file))) return;
    if (ts.isJsxText(node)) {
      if (/\p{L}{2}/u.test(node.text)) found.push(node.text.trim());
      return;
    }
    if (ts.isJsxAttribute(node)) {
      const name = node.name.getText(file);
      if (UNREAD_KEYS.includes(name)) return;
      if (node.initializer && ts.isStringLiteral(node.initializer)) {
        const { text } = node.initializer;
        if (SAID_ATTRIBUTES.includes(name) ? /\p{L}{2}/u.test(text) : isProse(text)) found.push(`${name}="${text}"`);
        return;
      }
    }
    if (ts.isPropertyAssignment(node) && UNREAD_KEYS.includes(node.name.getText(file)) && wordsOf(node.initializer) !== null) return;
    if (ts.isCallExpression(node) && UNREAD_CALLS.test(node.expression.getText(file))) {
      for (const argument of node.arguments) if (wordsOf(argument) === null) visit(argument);
      visit(node.expression);
      return;
    }
    const words = wordsOf(node);
    if (words !== null && isProse(words)) found.push(words.trim());
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}
