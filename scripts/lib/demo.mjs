import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './run.mjs';

/** Loads the demo sites and jobs into an empty store; what a person made or archived stays as it is. */
export async function loadDemo(url) {
  const sites = await (await fetch(`${url}/api/sites`)).json();
  if (sites.length > 0) return;
  const post = async (path, body) => {
    const answer = await fetch(`${url}/api/${path}`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        'x-author': encodeURIComponent('{"name":"Tactron","role":"demo data"}'),
      },
      body,
    });
    if (!answer.ok) throw new Error(`demo data: ${path}: ${await answer.text()}`);
  };
  const read = (file) => readFileSync(join(root, 'demo', file), 'utf8');
  for (const site of JSON.parse(read('sites.json'))) await post('sites', JSON.stringify(site));
  for (const file of readdirSync(join(root, 'demo')).filter((name) =>
    name.endsWith('.tactron.json'),
  ))
    await post('import', read(file));
  console.log('Demo data loaded.');
}
