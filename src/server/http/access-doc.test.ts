import { describe, expect, it } from 'vitest';
import { ROLES } from '../accounts/roles';
import { ACCESS, methodsOf } from './access';

/** A table as Markdown, its columns in line. */
function table(rows: readonly (readonly string[])[]): string {
  const widths = (rows[0] ?? []).map((_, i) => Math.max(3, ...rows.map((row) => (row[i] ?? '').length)));
  const line = (row: readonly string[]): string => `| ${row.map((cell, i) => cell.padEnd(widths[i] ?? 0)).join(' | ')} |`;
  const [head = [], ...body] = rows;
  return [line(head), `| ${widths.map((width) => '-'.repeat(width)).join(' | ')} |`, ...body.map(line)].join('\n');
}

const whoIs = (who: (typeof ACCESS)[string]): string => (typeof who === 'string' ? who : who.join(', '));

function routes(): string {
  const rows = Object.entries(ACCESS).map(([route, who]) => [`\`${route}\``, methodsOf(route).join(', '), whoIs(who)]);
  return table([['Route', 'Methods', 'Who'], ...rows]);
}

describe('who may do what', () => {
  it('is what docs/access.md says (npx vitest run src/server/http/access-doc.test.ts --update writes it)', async () => {
    const text = `# Who may do what

Which route answers whom, made from the code (\`server/http/access.ts\`) and compared with it by a test; every route is asked as every role by
\`tests/e2e/z-roles.spec.ts\`. What may be done with a listing stands in [security.md](security.md). Roles: ${ROLES.join(', ')}. \`anyone\` is readers too; \`operator\` is the command line on the server itself. A route that is not here is
refused to everybody, a method that is not here is answered with 405.

${routes()}
`;
    await expect(text).toMatchFileSnapshot('../../../docs/access.md');
  });
});
