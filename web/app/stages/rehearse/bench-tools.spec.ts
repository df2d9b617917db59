import { TestBed } from '@angular/core/testing';
import { BenchTools } from './bench-tools';
import { Leads } from './leads';
import { benchProviders, FakeSession } from './testing/fake-session';

describe('bench tools', () => {
  async function bed() {
    localStorage.removeItem('tactron.preferences');
    const session = new FakeSession();
    TestBed.configureTestingModule({ providers: benchProviders(session) });
    const fixture = TestBed.createComponent(BenchTools);
    const leads = TestBed.inject(Leads);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const reading = async (): Promise<string> => {
      await fixture.whenStable();
      return `${page.querySelector('.reading')?.textContent?.trim()} | ${page.querySelector('.meter .soft')?.textContent?.trim()}`;
    };
    const button = (text: string): HTMLButtonElement =>
      [...page.querySelectorAll('button')].find((b) =>
        b.textContent?.trim().startsWith(text),
      ) as HTMLButtonElement;
    return { session, fixture, leads, page, reading, button };
  }

  it('reads volts between the leads, with their sign, and says floating where nothing joins them', async () => {
    const { leads, reading } = await bed();
    expect(await reading()).toBe('– | Put both leads.');
    leads.plus.set('device:24E');
    leads.minus.set('device:0E');
    expect(await reading()).toBe('24 V DC | 0 V AC');
    leads.plus.set('device:0E');
    leads.minus.set('device:24E');
    expect(await reading()).toBe('−24 V DC | 0 V AC');
    leads.minus.set('relay.sealIn:14');
    expect(await reading()).toContain('floating');
  });

  it('reads the current of a wire from its own resistance, and none in a broken one', async () => {
    const { session, leads, reading, button } = await bed();
    button('A in wire').click();
    expect(await reading()).toBe('– | Choose a wire.');
    leads.wire.set('w1');
    // 24 V − 23.5 V over 50 Ω.
    expect(await reading()).toBe('10 mA DC | wire 12');
    leads.toggleWire();
    expect(session.acts).toEqual([{ do: 'breakWire', wire: 'w1' }]);
    expect(await reading()).toBe('0 mA | wire 12 is broken');
    leads.toggleWire();
    expect(session.acts[1]).toEqual({ do: 'mendWire', wire: 'w1' });
  });

  it('refuses ohms while anything is live, and says so', async () => {
    const { session, leads, reading, button, fixture } = await bed();
    leads.plus.set('device:24E');
    leads.minus.set('device:0E');
    button('Ω').click();
    await fixture.whenStable();
    expect(await reading()).toContain('4.7 kΩ');
    session.resistance = { ok: false, why: 'live' };
    await session.act({ do: 'supplyOn' });
    await fixture.whenStable();
    expect(await reading()).toContain('Refused: something is live');
    session.resistance = { ok: true, ohm: null };
    await session.act({ do: 'supplyOff' });
    await fixture.whenStable();
    expect(await reading()).toContain('open');
  });

  it('bridges the leads and takes the bridge away again', async () => {
    const { session, leads, button, fixture } = await bed();
    expect(button('Bridge').disabled).toBeTrue();
    leads.plus.set('device:24E');
    leads.minus.set('device:0E');
    await fixture.whenStable();
    button('Bridge').click();
    await fixture.whenStable();
    button('Take the bridge').click();
    expect(session.hooks).toEqual([
      ['device:24E', 'device:0E', 'short'],
      ['device:24E', 'device:0E', 'off'],
    ]);
  });

  it('puts a battery in volts and a calibrator in milliamperes, with either decimal mark', async () => {
    const { session, leads, page, button, fixture } = await bed();
    leads.plus.set('device:24E');
    leads.minus.set('device:0E');
    const value = page.querySelector('.source input') as HTMLInputElement;
    const type = async (text: string): Promise<void> => {
      value.value = text;
      value.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    await type('9,1');
    button('Put it').click();
    const kind = page.querySelector('.source select') as HTMLSelectElement;
    kind.value = 'amps';
    kind.dispatchEvent(new Event('change'));
    await type('12');
    button('Put it').click();
    await type('lots');
    button('Put it').click();
    expect(session.hooks).toEqual([
      ['device:24E', 'device:0E', 'volts', 9.1],
      ['device:24E', 'device:0E', 'amps', 0.012],
    ]);
  });

  it('sets a link, and shows where it was set', async () => {
    const { session, page, fixture } = await bed();
    const link = [...page.querySelectorAll<HTMLSelectElement>('.wires select')].at(
      -1,
    ) as HTMLSelectElement;
    expect(link.value).toBe('zero');
    link.value = 'none';
    link.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(session.acts).toEqual([{ do: 'link', link: 'CL', position: 'none' }]);
    expect(link.value).toBe('none');
  });
});
