import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { tolerancesSchema, type OwnTolerances } from '@tactron/core/job';
import * as v from 'valibot';
import { ToleranceTable } from './tolerance-table';

describe('the tolerances of a site', () => {
  async function bed(own: OwnTolerances) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(ToleranceTable);
    fixture.componentRef.setInput('own', own);
    const settled: OwnTolerances[] = [];
    fixture.componentInstance.settled.subscribe((t) => settled.push(t));
    await fixture.whenStable();
    const row = (name: string) =>
      (fixture.nativeElement as HTMLElement).querySelector(
        `[data-tolerance=${name}]`,
      ) as HTMLElement;
    const type = async (name: string, text: string): Promise<void> => {
      const field = row(name).querySelector('input') as HTMLInputElement;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      field.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    return { settled, row, type };
  }

  it('takes shares in per cent and others in their unit, and keeps what was settled before', async () => {
    const { settled, type } = await bed({ hz: 0.2 });
    await type('rampShare', '7 %');
    await type('wireOhm', '500 mΩ');
    expect(settled).toEqual([
      { hz: 0.2, rampShare: 0.07 },
      { hz: 0.2, wireOhm: 0.5 },
    ]);
    for (const s of settled) expect(v.safeParse(tolerancesSchema, s).success).toBeTrue();
  });

  it('refuses at the field what would prove nothing, and settles nothing', async () => {
    const { settled, row, type } = await bed({});
    await type('hz', '50');
    expect(row('hz').querySelector('[role=alert]')?.textContent).toContain('At most 5 Hz.');
    await type('rampS', '0');
    expect(row('rampS').querySelector('[role=alert]')?.textContent).toContain('above 0');
    expect(settled).toEqual([]);
  });

  it('goes back to the usual', async () => {
    const { settled, row, type } = await bed({ hz: 0.2, rampS: 1 });
    row('hz').querySelector('button')?.click();
    await type('rampS', '0.3');
    expect(settled).toEqual([{ rampS: 1 }, { hz: 0.2 }]);
  });
});
