import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { SaidIdentification } from '@tactron/core/said';
import { IdentifyLine, type Identified } from './identify-line';

const run: SaidIdentification = {
  ways: [
    {
      id: 'standing',
      code: 'M/08',
      to: '1 · standing',
      seconds: 20,
      uncoupled: false,
      presses: [{ key: 'PRG', times: 2 }],
    },
    {
      id: 'turning',
      code: 'M/08',
      to: '2 · turning',
      seconds: 75,
      uncoupled: true,
      presses: [{ key: 'PRG', times: 3 }],
    },
  ],
  startKey: 'GO',
  during: 'MEASURING',
  done: 'MEASURED',
  results: [
    {
      code: 'M/09',
      name: 'Winding resistance',
      unit: 'Ω',
      min: 0,
      max: 100,
      expected: { least: 0.6, nominal: 1, most: 1.4 },
    },
  ],
  failures: [{ shown: 'E-42', cause: 'The enable opened.', cure: 'Keep it closed.' }],
};

describe('an identification run at its keypad', () => {
  async function bed(held = false) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(IdentifyLine);
    fixture.componentRef.setInput('run', run);
    fixture.componentRef.setInput('held', held);
    const told: Identified[] = [];
    fixture.componentInstance.measured.subscribe((x) => told.push(x));
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const settle = () => fixture.whenStable();
    const type = async (text: string): Promise<void> => {
      const field = page.querySelector('.read input') as HTMLInputElement;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      (page.querySelector('.read button') as HTMLButtonElement).click();
      await settle();
    };
    const alert = (): string => page.querySelector('[role=alert]')?.textContent ?? '';
    return { page, told, type, alert, settle };
  }

  it('says what is done in order, and takes only what the device shows as measured', async () => {
    const { page, told, type, alert } = await bed();
    expect(page.textContent).toContain('MEASURING');
    expect(page.textContent).toContain('about 20 s');
    expect(page.textContent).toContain('by the plate about 1.0 Ω (0.60 to 1.4)');
    await type('');
    expect(alert()).toContain('Type what M/09 shows now');
    await type('0');
    expect(alert()).toContain('nothing was measured');
    await type('101');
    expect(alert()).toContain('goes to 100 Ω');
    await type('0,97');
    expect(told).toEqual([{ way: 'standing', values: { 'M/09': 0.97 } }]);
  });

  it('asks once about what the plate does not let expect, and keeps it when it is said again', async () => {
    const { told, type, alert } = await bed();
    await type('5');
    expect(alert()).toContain('outside what the plate lets expect');
    expect(told).toEqual([]);
    // Another odd value is asked about anew.
    await type('6');
    expect(told).toEqual([]);
    await type('6');
    expect(told).toEqual([{ way: 'standing', values: { 'M/09': 6 } }]);
  });

  it('with the shaft turning wants the load off, and is put back; while a hold waits nothing can be entered', async () => {
    const { page, settle } = await bed();
    expect(page.textContent).not.toContain('Take the load off');
    (
      [...page.querySelectorAll<HTMLElement>('[role=radio], label, button')].find((e) =>
        e.textContent?.includes('Shaft turning'),
      ) as HTMLElement
    ).click();
    await settle();
    expect(page.textContent).toContain('Take the load off');
    expect(page.textContent).toContain('put back on with everything isolated');
    TestBed.resetTestingModule();
    const waiting = await bed(true);
    expect(waiting.page.querySelector('.read')).toBeNull();
  });
});
