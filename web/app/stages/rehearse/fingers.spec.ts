import { Fingers } from './fingers';

describe('fingers on the lanes', () => {
  it('zoom a step closer where two spread, a step back where they close, and not before', () => {
    const f = new Fingers();
    f.down(1, { x: 100, y: 0 });
    f.down(2, { x: 200, y: 0 });
    expect(f.move(2, { x: 220, y: 0 }, 500)).toBeUndefined();
    expect(f.move(2, { x: 240, y: 0 }, 500)).toEqual({ does: 'zoom', closer: true });
    expect(f.move(2, { x: 250, y: 0 }, 500)).toBeUndefined();
    expect(f.move(2, { x: 190, y: 0 }, 500)).toEqual({ does: 'zoom', closer: false });
  });

  it('move by the way of one, and by nothing once it is lifted', () => {
    const f = new Fingers();
    f.down(1, { x: 100, y: 0 });
    expect(f.move(1, { x: 50, y: 9 }, 500)).toEqual({ does: 'move', share: 0.1 });
    expect(f.move(1, { x: 50, y: 30 }, 500)).toBeUndefined();
    f.up(1);
    expect(f.move(1, { x: 0, y: 0 }, 500)).toBeUndefined();
  });

  it('begin anew with the first of a new touch, though a lift was never told', () => {
    const f = new Fingers();
    f.down(1, { x: 0, y: 0 }, true);
    f.down(2, { x: 100, y: 0 });
    f.down(3, { x: 50, y: 0 }, true);
    f.down(4, { x: 250, y: 0 });
    expect(f.move(4, { x: 150, y: 0 }, 500)).toEqual({ does: 'zoom', closer: false });
  });

  it('go on moving with the one that stays of two', () => {
    const f = new Fingers();
    f.down(1, { x: 0, y: 0 });
    f.down(2, { x: 100, y: 0 });
    f.up(1);
    expect(f.move(2, { x: 150, y: 0 }, 500)).toEqual({ does: 'move', share: -0.1 });
  });
});
