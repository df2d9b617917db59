import { twoClients } from './testing/two-clients';

describe('two people on one job, over a bad network', () => {
  it('end with the same document, nothing acknowledged lost, evidence only grown', async () => {
    const wrong: string[] = [];
    for (let seed = 1; seed <= 120; seed++)
      wrong.push(...(await twoClients(seed)).map((text) => `seed ${seed}: ${text}`));
    expect(wrong).toEqual([]);
  }, 240_000);
});
