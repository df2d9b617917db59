import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { functionOf, knobAngle, lookOf, stationRank } from './face-look';
import { SwitchFace } from './switch-face';

const part = (id: string, name = 'Push button', workedBy: 'hand' | 'process' = 'hand') => ({
  id,
  name,
  workedBy,
});

describe('faces of the station', () => {
  it('have the colours of the standard: red mushroom, red stop, green start, white inching, each with its mark', () => {
    const looks = ['estop', 'button.stop', 'button.start.2', 'button.jogForward', 'select.ramp'];
    expect(looks.map((id) => lookOf(part(id)))).toEqual([
      { colour: 'red', mark: '', shape: 'mushroom' },
      { colour: 'red', mark: 'ring', shape: 'push' },
      { colour: 'green', mark: 'bar', shape: 'push' },
      { colour: 'white', mark: 'foot', shape: 'push' },
      { colour: 'black', mark: '', shape: 'knob' },
    ]);
    expect(lookOf(part('interlock.guard', 'Guard contact', 'process')).shape).toBe('contact');
    expect(lookOf(part('select.local', 'Key switch')).shape).toBe('key');
  });

  it('are named by what they do, and by their kind where the role says no more', () => {
    expect(functionOf(part('button.jogForward'))).toBe('jog forward');
    expect(functionOf(part('estop'))).toBe('e-stop');
    expect(functionOf(part('x1', 'Foot switch'))).toBe('foot switch');
  });

  it('stand in the order of a station: what stops before what starts, then the rest', () => {
    const ids = ['select.ramp', 'button.start', 'button.stop.2', 'estop'].map((id) => ({ id }));
    expect(ids.sort((x, y) => stationRank(x) - stationRank(y)).map(({ id }) => id)).toEqual([
      'estop',
      'button.stop.2',
      'button.start',
      'select.ramp',
    ]);
  });

  it('turn a knob of three positions through upright', () => {
    expect([0, 1, 2].map((p) => knobAngle(p, 3))).toEqual([-45, 0, 45]);
    expect([0, 1].map((p) => knobAngle(p, 2))).toEqual([-45, 45]);
  });

  it('turn on by a touch of the face, from the last position to the first, and by arrow keys', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(SwitchFace);
    const set = (name: string, value: unknown): void => fixture.componentRef.setInput(name, value);
    set('tag', 'S1');
    set('positions', ['reverse', 'off', 'forward']);
    set('position', 'forward');
    set('look', lookOf(part('select.direction')));
    await fixture.whenStable();
    const seen: string[] = [];
    fixture.componentInstance.turned.subscribe((p) => seen.push(p));
    const page = fixture.nativeElement as HTMLElement;
    page
      .querySelector('svg')
      ?.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, cancelable: true }));
    const on = page.querySelector('[aria-checked=true]');
    on?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }));
    on?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    expect(seen).toEqual(['reverse', 'off', 'forward']);
  });
});
