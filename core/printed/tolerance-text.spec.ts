import { toleranceNames } from '../job/index.js';
import { ownTolerances, tolerancesApart, toleranceText, toleranceWords } from './tolerance-text.js';

describe('tolerances in words', () => {
  it('gives shares in per cent, others in their unit, and says which bound only above', () => {
    expect(toleranceText('hz', 0.1)).toBe('±0.1 Hz');
    expect(toleranceText('rampShare', 0.05)).toBe('±5 %');
    expect(toleranceText('wireOhm', 0.3, ',')).toBe('≤ 0,3 Ω');
    expect(toleranceText('currentUnbalancePct', 10)).toBe('≤ 10 %');
  });

  it('has words for each, no two alike', () => {
    expect(new Set(toleranceNames.map((n) => toleranceWords[n])).size).toBe(toleranceNames.length);
  });

  it('names only what is settled otherwise, with the usual beside it', () => {
    expect(ownTolerances(undefined)).toBe('');
    expect(ownTolerances({ hz: 0.1 })).toBe('');
    expect(ownTolerances({ hz: 0.2, rampS: 1 })).toBe(
      'output frequency ±0.2 Hz (usual ±0.1 Hz); ramps and warnings ±1 s (usual ±0.3 s)',
    );
    expect(tolerancesApart({ hz: 0.2 }, { hz: 0.3 }).map((t) => [t.one, t.other])).toEqual([
      ['±0.2 Hz', '±0.3 Hz'],
    ]);
  });
});
