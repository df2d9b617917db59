import '@angular/compiler';

/** Runs the two-client model on many seeds and prints what went wrong as JSON. */
const { twoClients } = await import('../web/app/job-state/testing/two-clients');
const runs = Number(process.argv[2] ?? 1000);
const begin = performance.now();
const wrongs: string[] = [];
for (let seed = 1; seed <= runs; seed++)
  wrongs.push(...(await twoClients(seed)).map((text) => `seed ${seed}: ${text}`));
console.log(JSON.stringify({ runs, seconds: (performance.now() - begin) / 1000, wrongs }));
process.exit(0);
