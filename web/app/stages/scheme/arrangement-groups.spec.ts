import { shippedArrangements } from '@tactron/core/scheme';
import { arrangementGroups } from './arrangement-groups';

describe('the list of arrangements', () => {
  it('offers every shipped arrangement once, each under a name of its own', () => {
    const options = arrangementGroups.flatMap((g) => g.options);
    expect(options.map((o) => o.value).sort()).toEqual(shippedArrangements.map((a) => a.id).sort());
    expect(new Set(options.map((o) => o.name)).size).toBe(options.length);
  });
});
