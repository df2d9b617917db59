import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { root } from './run.mjs';

const methods = ['get', 'post', 'put', 'patch', 'delete'];

function sources(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sources(path);
    return /(?<!spec)\.ts$/u.test(entry.name) && !/\.spec\.ts$|testing/u.test(path)
      ? [ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true)]
      : [];
  });
}

const each = (node, visit) => {
  visit(node);
  node.forEachChild((child) => each(child, visit));
};

/** Text of a literal; where a template puts something in, three dots stand. */
function literal(node) {
  if (!node) return undefined;
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isTemplateExpression(node))
    return node.head.text + node.templateSpans.map((s) => `…${s.literal.text}`).join('');
  return undefined;
}

/** First sentence of the comment above the function that a node stands in. */
function about(node) {
  for (let at = node; at; at = at.parent) {
    if (!ts.isFunctionDeclaration(at)) continue;
    const [doc] = ts.getJSDocCommentsAndTags(at);
    const text = typeof doc?.comment === 'string' ? doc.comment : '';
    return { name: at.name?.text ?? '', text: text.split('\n\n')[0].replace(/\s+/gu, ' ') };
  }
  return { name: '', text: '' };
}

/** Who may: what the handler demands. */
function demands(handler) {
  const found = new Set();
  each(handler, (node) => {
    if (!ts.isCallExpression(node)) return;
    const called = node.expression.getText();
    if (called === 'demand') found.add(literal(node.arguments[1]));
    if (called === 'demandAdministrator') found.add('administrator');
  });
  return [...found].join(', ');
}

/** Routes of the server and the problems it answers with, read from its source. */
export function apiPage() {
  const files = sources(join(root, 'server/src'));
  const mounts = new Map();
  const routes = [];
  const problems = new Map();
  for (const file of files)
    each(file, (node) => {
      if (ts.isNewExpression(node) && node.expression.getText() === 'Problem') {
        const [status, type, title] = node.arguments ?? [];
        if (literal(type))
          problems.set(`${literal(type)} ${status.getText()}`, literal(title) ?? '');
      }
      if (!ts.isCallExpression(node) || !ts.isPropertyAccessExpression(node.expression)) return;
      const [first, ...rest] = node.arguments;
      const [on, method] = [node.expression.expression.getText(), node.expression.name.text];
      const path = literal(first);
      if (on === 'app' && method === 'use' && path?.startsWith('/api'))
        for (const part of rest)
          if (ts.isCallExpression(part)) mounts.set(part.expression.getText(), path);
      if (!methods.includes(method) || path === undefined || !['app', 'router'].includes(on))
        return;
      routes.push({ on, method, path, ...about(node), role: demands(rest.at(-1)), file });
    });
  /** A router that a function fills is mounted where the one that made it is. */
  const mountOf = ({ on, name, file }) => {
    if (on === 'app') return '';
    if (mounts.has(name)) return mounts.get(name);
    const maker = [...mounts].find(([fn]) => new RegExp(`function ${fn}\\b`, 'u').test(file.text));
    return maker?.[1] ?? '';
  };
  const lines = routes
    .map((r) => ({ ...r, address: (mountOf(r) + r.path).replace(/(?<=.)\/$/u, '') }))
    .sort((x, y) => x.address.localeCompare(y.address) || x.method.localeCompare(y.method));
  const cell = (text) => text.replaceAll('|', '\\|');
  return `# Interface of the server

Made by \`npm run formats\` from the code. JSON in and out unless said otherwise; refusals are problem documents (RFC 9457) with \`type\` \`urn:tactron:problem:<code>\`, \`title\` in words, and \`path\` where one place is meant. Answers are \`no-store\` but for what is named by its hash. Writes carry \`x-clock\` (the sender's time), \`x-format\` (format of job documents the sender knows) and \`x-account\` (whose work it is; empty without accounts).

## Routes

The role is what an account needs; without accounts only this machine can ask, and may do everything.

| method | address | role | part of |
| --- | --- | --- | --- |
${lines.map((r) => `| ${r.method.toUpperCase()} | \`${r.address}\` | ${r.role || '–'} | ${cell(r.text)} |`).join('\n')}

## Problems

| code | status | title |
| --- | --- | --- |
${[...problems]
  .sort(([x], [y]) => x.localeCompare(y))
  .map(([key, title]) => {
    const [code, status] = key.split(' ');
    return `| \`${code}\` | ${status} | ${cell(title)} |`;
  })
  .join('\n')}
`;
}
