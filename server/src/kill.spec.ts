import { killRun } from './testing/kill-run.js';

describe('killed without warning while fifty save', () => {
  it('server and database lose nothing they have acknowledged, and store nothing twice', async () => {
    const report = await killRun(3, 1);
    expect([
      report.serverKills,
      report.databaseKills,
      report.diedAlone,
      report.lost,
      report.wrong,
    ]).toEqual([3, 1, 0, 0, 0]);
    expect(report.acknowledged).toBeGreaterThan(50);
  }, 60_000);
});
